import type { Format } from './format';
import { lossInQti21 } from './qti21/loss';
import { writeQti21 } from './qti21/write';

/** The formats that can be written. A new one is a folder and one line here; readers are in documents.ts. */
export const writtenFormats: Format[] = [
	{ name: 'qti21', title: 'QTI 2.1 package', ending: '.zip', loss: lossInQti21, write: writeQti21 }
];

/** The format of a name, where it can be written. */
export function writtenFormat(name: string): Format | undefined {
	return writtenFormats.find((format) => format.name === name);
}
