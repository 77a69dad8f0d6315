import type { KeyForm } from './draft';

/** How drafts become questions. */
export interface Assembling {
	keyForms: readonly KeyForm[];
	/** The file's words for kinds, by the word. */
	kindNames?: Record<string, string>;
	identifier: string;
	file: string;
	line: number;
	endLine: number;
	format: string;
}
