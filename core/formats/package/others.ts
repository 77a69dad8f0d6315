import type { Container } from '../../container/container';
import type { ReadEvent } from '../format';
import type { Manifest } from './manifest';

const mostNamed = 5;
const leftBehind = /(^|\/)(__MACOSX\/|\._|\.DS_Store$|Thumbs\.db$|desktop\.ini$)/i;
const packages = /\.(zip|imscc)$/i;
const opened = /\.(zip|imscc|docx|xlsx)$/i;
const schemas = /\.(xsd|dtd|rng|mod)$/i;

/**
 * Gives the files of a package that are neither read as questions nor used by any, each with the type that the
 * manifest gives it, and one report that names them: they are not ours, and nothing of them is taken in.
 */
export function* otherFiles(
	container: Container,
	manifest: Manifest | null,
	isOurs: (path: string) => boolean
): Generator<ReadEvent> {
	if (!container.packaged) return;
	const found: string[] = [];
	for (const { path } of container.files) {
		if (path === manifest?.file || isOurs(path)) continue;
		// where there is no manifest, documents and workbooks are opened too
		if (leftBehind.test(path) || (manifest ? packages : opened).test(path) || schemas.test(path)) continue;
		found.push(path);
	}
	const types = new Map<string, string>();
	const wanted = new Set(found);
	for (const resource of found.length && manifest ? manifest.resources : [])
		for (const path of resource.files) if (wanted.has(path)) types.set(path, resource.type);
	for (const path of found) yield { type: 'other', other: { path, type: types.get(path) ?? '' } };
	if (!found.length) return;
	const named = found.slice(0, mostNamed).map((path) => `“${path}”`);
	yield {
		type: 'report',
		report: {
			rule: 'not-ours',
			severity: 'untidy',
			message: `The package holds ${found.length === 1 ? 'a file' : `${found.length} files`} that no question uses: ${named.join(', ')}${found.length > mostNamed ? ` and ${found.length - mostNamed} more` : ''}. Nothing of ${found.length === 1 ? 'it' : 'them'} is taken in.`,
			place: { file: found[0]! }
		}
	};
}
