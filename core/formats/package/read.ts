import type { Container } from '../../container/container';
import type { Codec } from '../../container/codec';
import type { Recipe } from '../recipe/recipe';
import type { ReadEvent } from '../format';
import { guarded } from './guarded';
import { PackageReading } from './reading';

/**
 * Reads everything in a package, or in one bare file, in the order of its manifest and within bounds. It never throws for
 * what is wrong in the content: it reports, and goes on with the next document.
 */
export function readPackage(
	given: Container,
	codec?: Codec,
	depth = 0,
	recipe?: Recipe,
	mostQuestions?: number
): AsyncGenerator<ReadEvent> {
	return guarded(new PackageReading(given, codec, depth, recipe).all(), mostQuestions);
}
