import type { FormatName } from './format';

/** The names of the formats for people. */
export const formatTitles: Record<FormatName, string> = {
	qti12: 'QTI 1.2',
	'qti12-xml': 'QTI 1.2, bare XML',
	qti20: 'QTI 2.0',
	qti21: 'QTI 2.1',
	qti22: 'QTI 2.2',
	qti30: 'QTI 3.0',
	cc11: 'Common Cartridge 1.1',
	cc12: 'Common Cartridge 1.2',
	cc13: 'Common Cartridge 1.3',
	text: 'Marked text',
	csv: 'CSV table',
	xlsx: 'XLSX workbook',
	docx: 'Word document',
	json: 'Yarn Barrow JSON',
	xml: 'Yarn Barrow XML',
	archive: 'Yarn Barrow archive',
	recipe: 'Read by a recipe'
};
