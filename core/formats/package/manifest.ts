import type { Container } from '../../container/container';
import { resolvePath } from '../../container/container';
import { streamText } from '../../container/decode';
import type { Report } from '../../reports/report';
import { streamXml } from '../../xml/stream';
import { childOf, childrenOf, descendants, textOf, trimmed, type XmlElement } from '../../xml/tree';
import { fold } from '../../markup/text';
import type { FormatName } from '../format';
import { ResourceList } from './resources';

/** What a manifest says. */
export interface Manifest {
	file: string;
	/** The folder that the manifest stands in, with its slash, or nothing. */
	folder: string;
	schema: string;
	schemaVersion: string;
	title: string;
	resources: ResourceList;
}

function languageText(node: XmlElement | undefined): string {
	if (!node) return '';
	const inner = childrenOf(node).find((child) => ['string', 'langstring', 'value'].includes(child.name));
	return fold(textOf(inner ?? node));
}

/** The taxons of a path: one beside the other as LOM has them (IEEE 1484.12.1, 9.2.2), or one inside the other as many write them. */
function taxonNames(path: XmlElement): string[] {
	return childrenOf(path, 'taxon')
		.flatMap((taxon) => [
			languageText(childOf(taxon, 'entry')) || languageText(childOf(taxon, 'id')),
			...taxonNames(taxon)
		])
		.filter(Boolean);
}

function classification(resource: XmlElement): string[] | null {
	for (const classified of descendants(resource, 'classification')) {
		const path = descendants(classified, 'taxonpath', 'taxonPath')[0];
		if (path) return taxonNames(path);
	}
	return null;
}

const base = (value: string | undefined) => (value ? value.replace(/\/?$/, '/').replace(/^\//, '') : '');

/** The path of the manifest: at the top, or in the one extra folder that holds everything. */
export function findManifest(container: Container): string | null {
	const paths: string[] = [];
	for (const { path } of container.files) if (/(^|\/)imsmanifest\.xml$/i.test(path)) paths.push(path);
	return paths.sort((a, b) => a.split('/').length - b.split('/').length || (a < b ? -1 : 1))[0] ?? null;
}

/** Reads a manifest in bounded memory; what is wrong with it is told. */
export async function readManifest(
	container: Container,
	file: string,
	told: (report: Report) => void
): Promise<Manifest> {
	const manifest: Manifest = {
		file,
		folder: file.slice(0, file.lastIndexOf('/') + 1),
		schema: '',
		schemaVersion: '',
		title: '',
		resources: new ResourceList(container.files)
	};
	const bases: string[] = [];
	const collect = (name: string, depth: number) =>
		name === 'resource' || (name === 'metadata' && depth === 1) || name === 'organizations';
	for await (const event of streamXml(streamText(container, file, told), {
		collect,
		resumeAt: 'resource',
		withoutSource: true
	})) {
		if (event.type === 'open') bases.push(base(event.attributes['xml:base']));
		else if (event.type === 'close') bases.pop();
		else if (event.type === 'fault')
			told({
				rule: event.rule,
				severity: 'doubtful',
				message: `The manifest is damaged in line ${event.line}: ${event.message}. Files that it does not name were looked for in the package itself.`,
				place: { file, line: event.line }
			});
		else if (event.element.name === 'metadata') {
			manifest.schema = trimmed(childOf(event.element, 'schema'));
			manifest.schemaVersion = trimmed(childOf(event.element, 'schemaversion'));
			manifest.title = languageText(descendants(event.element, 'title')[0]);
		} else if (event.element.name === 'resource') {
			const { attributes, line } = event.element;
			const prefix = [...bases, base(attributes['xml:base'])].join('');
			const path = (address: string | undefined) => {
				const found = address ? resolvePath(file, address, prefix) : null;
				return found === null ? null : (container.find(found) ?? found);
			};
			const files = childrenOf(event.element, 'file').flatMap((one) => path(one.attributes.href) ?? []);
			const own = path(attributes.href);
			manifest.resources.push({
				type: attributes.type ?? '',
				file: own ?? files[0] ?? null,
				files: own && !files.includes(own) ? [own, ...files] : files,
				category: classification(event.element),
				keywords: descendants(event.element, 'keyword').map(languageText).filter(Boolean),
				difficulty: trimmed(childOf(descendants(event.element, 'difficulty')[0], 'value')) || null,
				line
			});
		}
	}
	return manifest;
}

/** The format that a manifest declares, by its schema and the types of its resources. */
export function declaredFormat(manifest: Manifest): FormatName | null {
	const { schema, schemaVersion, resources } = manifest;
	if (/common cartridge/i.test(schema))
		return schemaVersion.startsWith('1.3') ? 'cc13' : schemaVersion.startsWith('1.2') ? 'cc12' : 'cc11';
	const spoken = `${schema} ${schemaVersion}`;
	if (/QTIv3|imsqti.*3\.0|QTI Package 3/i.test(spoken)) return 'qti30';
	if (/QTIv2\.2/i.test(spoken)) return 'qti22';
	if (/QTIv2\.1/i.test(spoken)) return 'qti21';
	let type = '';
	for (const resource of resources) {
		if (!resource.type.startsWith('imsqti')) continue;
		type = resource.type;
		break;
	}
	if (/xmlv3p0/.test(type)) return 'qti30';
	if (/xmlv2p2/.test(type)) return 'qti22';
	if (/xmlv2p1/.test(type)) return 'qti21';
	if (/xmlv2p0|imsqti_item_xml$/.test(type)) return 'qti20';
	return /^imsqti_xmlv1/.test(type) ? 'qti12' : null;
}
