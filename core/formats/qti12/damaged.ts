import { repairXml } from '../../xml/repair';
import { parseXml } from '../../xml/parse';
import { descendants } from '../../xml/tree';
import type { Question } from '../../kinds';
import { damagedQuestion, type DamagedSource } from '../damaged';
import type { DocumentContext, ReadQuestion } from '../format';
import { categoryOfMetadata, readItem12 } from './item';
import { metadataOf } from './metadata';
import { placeMaterials, type Materials } from './references';

/**
 * Reads as much as can be made out of an item that is not well-formed; it is kept as it came. `category` are the titles of
 * the sections that it stands in.
 */
export function readDamaged12(
	source: DamagedSource,
	{ category, materials, context }: { category: string[]; materials: Materials; context: DocumentContext }
): Omit<ReadQuestion, 'type'> & { said: string[] } {
	const { root } = parseXml(repairXml(source.fragment));
	let mended: Question | null = null;
	if (root?.name === 'item') {
		placeMaterials(root, materials);
		mended = readItem12(root, source.fragment, source.to, category, context).question;
	}
	const around = category.length ? { ...context, category } : context;
	const { type: _, ...read } = damagedQuestion(source, mended, around, { identifier: 'ident' });
	return { ...read, said: root ? categoryOfMetadata(metadataOf(root)) : [] };
}

/** Reads an item anew that was kept since it is not well-formed, with that put right; null where it is still no item. */
export function readItem12Again(fragment: string, context: DocumentContext): ReadQuestion | null {
	const { root } = parseXml(repairXml(fragment));
	// what it shows from elsewhere in the file cannot be had any more
	if (root?.name !== 'item' || descendants(root, 'matref', 'material_ref').length) return null;
	return { type: 'question', fragment, ...readItem12(root, fragment, 0, context.category, context) };
}
