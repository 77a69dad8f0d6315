import { escapeText } from '../../xml/serialise';
import { falseHeading, trueHeading } from '../choices';
import type { Line } from './lines';

const counted = /^(?:q\s*)?(\d{1,6})\s*[.)]?$/i;

/**
 * The lines of a table of statements with a column for true and one for false, in which a mark may stand: a question for
 * each statement. Null for any other table. `number` is that of the first statement where the table counts none.
 */
export function linesOfStatements(line: Line, number: number): Line[] | null {
	const [head, ...body] = (line.table ?? []).filter((cells) => cells.some((cell) => cell.text));
	if (!head || !body.length) return null;
	const [yes, no] = [trueHeading, falseHeading].map((heading) => head.findIndex((cell) => heading.test(cell.text)));
	if (yes! < 0 || no! < 0) return null;
	const others = head.flatMap((_, at) => (at === yes || at === no ? [] : [at]));
	const length = (at: number) => body.reduce((sum, cells) => sum + (cells[at]?.text.length ?? 0), 0);
	const statement = others.reduce((a, b) => (length(b) > length(a) ? b : a), others[0] ?? -1);
	if (statement < 0 || body.some((cells) => !cells[statement]?.text)) return null;
	return body.flatMap((cells, at): Line[] => {
		const own = others.flatMap((place) => counted.exec(cells[place]?.text ?? '')?.[1] ?? [])[0];
		const put = (text: string, markup = escapeText(text)): Line => ({ ...line, table: null, text, markup });
		const front = `${own ?? number + at}. `;
		const { text, markup } = cells[statement]!;
		const marked = [yes!, no!].map((place) => Boolean(cells[place]?.text));
		return [
			put(`${front}${text} (T/F)`, `${front}${markup} (T/F)`),
			...(marked[0] === marked[1] ? [] : [put(`Answer: ${marked[0] ? 'True' : 'False'}`)])
		];
	});
}
