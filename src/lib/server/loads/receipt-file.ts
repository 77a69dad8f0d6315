import Papa from 'papaparse';
import { kindName, type Kind } from '$core/kinds';
import { pathOfKey } from '$core/take-in/paths';
import type { Outcome } from '$core/take-in/planned-question';
import { escapeText } from '$core/xml/serialise';
import type { Database } from '../db/pool';
import type { Load } from './loads';
import { receipt, receiptHead, receiptQuestions, type ReceiptHead, type ReceiptLine } from './receipt';

/** What the outcomes are called on a receipt, in the order of its columns. */
export const outcomeNames: Record<Outcome, string> = {
	taken: 'taken in',
	replaced: 'in the place of an older one',
	aside: 'set aside',
	left: 'left out',
	skipped: 'skipped as already there'
};
const outcomes = Object.keys(outcomeNames) as Outcome[];
const most = 200_000;
const pathOf = (key: string) => pathOfKey(key).join(' / ');

/** The receipt of a load as a table of all its questions: CSV with a byte order mark, so that spreadsheets read its accents. */
export async function receiptCsv(db: Database, load: Load): Promise<string> {
	const questions = await receiptQuestions(db, load.id, null, null, null, most);
	const lines = questions.map((question) => [
		question.number,
		question.title,
		kindName(question.kind as Kind),
		pathOf(question.category),
		outcomeNames[question.outcome as Outcome] ?? question.outcome,
		question.outcome === 'aside' ? (question.why ?? '') : ''
	]);
	// a cell that begins like a formula is kept from being run by a spreadsheet
	return `\ufeff${Papa.unparse([['Number', 'Question', 'Kind', 'Category in the file', 'What became of it', 'Why'], ...lines], { escapeFormulae: formulaLike, newline: '\r\n' })}\r\n`;
}

/** How a cell begins that a spreadsheet could run, whatever lines it has. */
const formulaLike = /^\s*[=+\-@\t\r\n\uff1d\uff0b\uff0d\uff20]/;

const cells = (values: (string | number)[], tag: 'td' | 'th') =>
	`<tr>${values.map((value) => `<${tag}${typeof value === 'number' ? ' class="n"' : ''}>${escapeText(String(value))}</${tag}>`).join('')}</tr>`;

function table(head: string, lines: ReceiptLine[], name: (key: string) => string): string {
	const sum = (key: 'found' | Outcome) => lines.reduce((total, line) => total + line[key], 0);
	const used = outcomes.filter((outcome) => outcome === 'taken' || sum(outcome) > 0);
	const row = (title: string, of: (key: 'found' | Outcome) => number) => [
		title,
		of('found'),
		...used.map((outcome) => of(outcome))
	];
	return `<table><thead>${cells([head, 'in the file', ...used.map((outcome) => outcomeNames[outcome])], 'th')}</thead><tbody>${lines
		.map((line) =>
			cells(
				row(name(line.key), (key) => line[key]),
				'td'
			)
		)
		.join('')}</tbody><tfoot>${cells(row('In all', sum), 'td')}</tfoot></table>`;
}

const utc = (moment: Date) => `${new Date(moment).toISOString().slice(0, 16).replace('T', ' ')} UTC`;

/** Where it went, when, by whom, with which quizzes, and what the rules have changed. */
function headLines(
	load: Load,
	course: string,
	{ bank, quizzes, sameQuizzes, settled, takenBy, effects }: ReceiptHead
): string {
	return [
		`${load.format}, brought by ${load.person}, ${utc(load.created)}.`,
		`Taken into ${course}${bank ? `, bank ${bank.name}` : ''}${takenBy ? `, by ${takenBy}` : ''}${settled ? `, ${utc(settled)}` : ''}.`,
		...(quizzes.length ? [`Quizzes: ${quizzes.map((quiz) => quiz.title).join(', ')}.`] : []),
		...sameQuizzes.map(
			({ title }) => `The quiz “${title}” was in the course already, the same, and was not taken in again.`
		),
		...quizzes.flatMap(({ title, lacks }) => lacks.map((words) => `“${title}”: ${words}`)),
		...effects.map((effect) => `By rule: ${effect.what}; questions: ${effect.questions}.`)
	]
		.map((line) => `<p>${escapeText(line)}</p>`)
		.join('');
}

/** The receipt of a load as a page by itself, for print and for keeping. */
export async function receiptHtml(db: Database, load: Load, course: string): Promise<string> {
	const [{ categories, kinds }, questions, head] = await Promise.all([
		receipt(db, load.id),
		receiptQuestions(db, load.id, null, null, null, most),
		receiptHead(db, load.id)
	]);
	const title = `Receipt of ${load.file_name}`;
	const kept = questions.filter((one) => one.outcome !== 'taken');
	return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${escapeText(title)}</title><style>body{font:14px/1.45 sans-serif;max-width:60em;margin:2em auto;color:#20242c}table{border-collapse:collapse;width:100%;margin:1em 0}th,td{text-align:left;padding:4px 10px;border-bottom:1px solid #c4b9a4;vertical-align:top}.n{text-align:right}tfoot td{font-weight:bold}</style></head><body><h1>${escapeText(title)}</h1>${headLines(load, course, head)}${table('Category in the file', categories, (key) => pathOf(key) || 'no category')}${table('Kind', kinds, (key) => kindName(key as Kind))}${kept.length ? `<h2>Not simply taken in</h2><table><thead>${cells(['Number', 'Question', 'What became of it', 'Why'], 'th')}</thead><tbody>${kept.map((one) => cells([one.number, one.title, outcomeNames[one.outcome as Outcome] ?? one.outcome, one.why ?? ''], 'td')).join('')}</tbody></table>` : ''}</body></html>\n`;
}
