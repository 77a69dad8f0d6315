import type { DocumentContext, ReadEvent } from '../format';
import { salvageJson } from './salvage';
import { trouble } from './events';

const deepest = 2000;

/** Whether lists and objects of a JSON text stand in one another deeper than any list of questions has them. */
function isTooDeep(text: string): boolean {
	let depth = 0;
	for (let at = 0; at < text.length; at += 1) {
		const sign = text.charCodeAt(at);
		if (sign === 0x22) {
			do {
				at = text.indexOf('"', at + 1);
				if (at < 0) return false;
			} while (isEscaped(text, at));
		} else if (sign === 0x5b || sign === 0x7b) {
			depth += 1;
			if (depth > deepest) return true;
		} else if (sign === 0x5d || sign === 0x7d) depth -= 1;
	}
	return false;
}

/** Whether an odd number of backslashes stands before a place of a text. */
function isEscaped(text: string, at: number): boolean {
	let from = at;
	while (text.charCodeAt(from - 1) === 0x5c) from -= 1;
	return (at - from) % 2 === 1;
}

/** The value of a JSON text, or of one object a line; of a damaged one as much as can be read, with a report. */
export function openJson(text: string, context: DocumentContext): { value?: unknown; reports: ReadEvent[] } {
	if (isTooDeep(text))
		return {
			reports: [
				trouble(
					context,
					'too-large',
					`“${context.file}” has lists within lists, thousands deep, as no list of questions has. It was not read; ask for it again.`
				)
			]
		};
	let fault: string;
	try {
		return { value: JSON.parse(text) as unknown, reports: [] };
	} catch (error) {
		fault = (error as Error).message;
	}
	const lines = text.split(/\r\n|\r|\n/).flatMap((line, at) => (line.trim() ? [{ line, number: at + 1 }] : []));
	const bad: ReadEvent[] = [];
	const values = lines.flatMap(({ line, number }): unknown[] => {
		try {
			return [JSON.parse(line) as unknown];
		} catch (error) {
			const why = `“${context.file}”, line ${number}, is no JSON: ${(error as Error).message}. It cannot be read, the others were.`;
			bad.push(trouble(context, 'not-well-formed', why, number));
			return [];
		}
	});
	const objects = values.filter((one) => typeof one === 'object' && one !== null);
	if (objects.length > lines.length / 2) return { value: objects, reports: bad };
	const found = salvageJson(text);
	const said = `“${context.file}” is no well-formed JSON: ${fault}.`;
	if (!found) return { reports: [trouble(context, 'not-well-formed', `${said} Mend it there, or ask for it again.`)] };
	return {
		value: found.value,
		reports: [
			trouble(
				context,
				'not-well-formed',
				`${said} What stands before line ${found.line} was read, and nothing after it. Mend it there, or ask for it again.`,
				found.line
			)
		]
	};
}
