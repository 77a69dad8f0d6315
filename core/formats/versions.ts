import type { FormatName } from './format';

/** The format of a document by its root element and that element's namespace, and else by what its manifest declares. */
export function formatOf(root: { name: string; namespace: string } | null, declared: FormatName | null): FormatName {
	if (root?.name === 'questions' && root.namespace.includes('yarn-barrow')) return 'xml';
	if (root?.name === 'questestinterop') return declared && /^cc/.test(declared) ? declared : 'qti12';
	if (root?.name.startsWith('qti-')) return 'qti30';
	if (/v2p2/.test(root?.namespace ?? '')) return 'qti22';
	if (/v2p1/.test(root?.namespace ?? '')) return 'qti21';
	if (/v2p0|imsqti_item_xml/.test(root?.namespace ?? '')) return 'qti20';
	return declared && /^qti[23]/.test(declared) ? declared : 'qti21';
}
