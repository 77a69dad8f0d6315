import { fit, type Limits } from './fit/fit';
import { quizzes2 } from './qti2/write/test';
import { exactQuizzes, noQuizzes, type QuizLimits } from './fit/quiz-limits';
import type { Format, FormatName } from './format';
import { writeArchive } from './own/archive';
import { ownLimits } from './own/form';
import { writeJson } from './own/json';
import { writeXml } from './own/xml';
import { csvLimits, writeCsv, writeXlsx, xlsxLimits } from './table/write/table';
import { textLimits, writeText } from './text/write/text';
import { cartridgeLimits, cartridgeQuizzes, limits12, limits12Bare, quizzes12 } from './qti12/write/limits';
import { cartridgeOrder, writeCartridge, writeQti12, writeQti12Bare } from './qti12/write/package';
import { dialects } from './qti2/write/dialect';
import { writeQti2 } from './qti2/write/package';

function made(
	name: FormatName,
	title: string,
	ending: string,
	limits: Limits,
	quizLimits: QuizLimits,
	write: Format['write']
): Format {
	return {
		name,
		title,
		ending,
		limits,
		quizLimits,
		loss: (question, options) => fit(question, limits, options),
		write
	};
}

const qti2 = dialects.map((dialect) =>
	made(dialect.name, dialect.title, '.zip', dialect.limits, quizzes2, (what, written) =>
		writeQti2(dialect, what, written)
	)
);

function cartridge(version: '1.2' | '1.3', name: FormatName): Format {
	const write: Format['write'] = (what, written) => writeCartridge(version, what, written);
	return {
		...made(name, `Common Cartridge ${version}`, '.imscc', cartridgeLimits, cartridgeQuizzes, write),
		order: cartridgeOrder
	};
}

/** The formats that can be written. A new one is a folder and one line here; readers are in documents.ts. */
export const writtenFormats: Format[] = [
	...qti2,
	made('qti12', 'QTI 1.2 package', '.zip', limits12, quizzes12, writeQti12),
	made('qti12-xml', 'QTI 1.2, bare XML', '.xml', limits12Bare, noQuizzes, writeQti12Bare),
	cartridge('1.2', 'cc12'),
	cartridge('1.3', 'cc13'),
	made('text', 'Marked text', '.txt', textLimits, noQuizzes, writeText),
	made('csv', 'CSV table', '.csv', csvLimits, noQuizzes, writeCsv),
	made('xlsx', 'XLSX workbook', '.xlsx', xlsxLimits, noQuizzes, writeXlsx),
	made('json', 'Yarn Barrow JSON', '.json', ownLimits, exactQuizzes, writeJson),
	made('xml', 'Yarn Barrow XML', '.xml', ownLimits, exactQuizzes, writeXml),
	made('archive', 'Yarn Barrow archive', '.zip', ownLimits, exactQuizzes, writeArchive)
];

/** The format of a name, where it can be written. */
export function writtenFormat(name: string): Format | undefined {
	return writtenFormats.find((format) => format.name === name);
}
