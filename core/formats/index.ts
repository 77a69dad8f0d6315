import { fit } from './fit/fit';
import type { Format } from './format';
import { dialects } from './qti2/write/dialect';
import { writeQti2 } from './qti2/write/package';

const qti2: Format[] = dialects.map((dialect) => ({
	name: dialect.name,
	title: dialect.title,
	ending: '.zip',
	limits: dialect.limits,
	loss: (question, options) => fit(question, dialect.limits, options),
	write: (what, written) => writeQti2(dialect, what, written)
}));

/** The formats that can be written. A new one is a folder and one line here; readers are in documents.ts. */
export const writtenFormats: Format[] = [...qti2];

/** The format of a name, where it can be written. */
export function writtenFormat(name: string): Format | undefined {
	return writtenFormats.find((format) => format.name === name);
}
