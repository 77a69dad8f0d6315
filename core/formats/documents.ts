import { ownNamespace } from './own/xml';
import type { DocumentReader } from './format';
import { readQti12 } from './qti12/read';
import { readItem } from './qti2/item';
import { readOwnXml } from './own/xml';
import { readTest } from './qti2/test';

/** The readers of single documents, by the root element that they read. A new kind of document is one line here. */
export const documentReaders = new Map<string, DocumentReader>([
	['questestinterop', readQti12],
	['assessmentItem', readItem],
	['qti-assessment-item', readItem],
	['questions', readOwnXml],
	['assessmentTest', readTest],
	['qti-assessment-test', readTest]
]);

/** The reader of a document by its root element; “questions” is ours only in our namespace, since many call theirs so. */
export function readerOf({ name, namespace }: { name: string; namespace: string }): DocumentReader | undefined {
	return name === 'questions' && namespace !== ownNamespace ? undefined : documentReaders.get(name);
}
