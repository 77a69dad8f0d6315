import type { ReaderRule } from '../../reports/rules';
import { plainText } from '../../markup/text';
import type { Markup } from '../../model/question';
import type { Report } from '../../reports/report';
import { emptyDraft, type Draft } from '../drafts/draft';
import type { Line } from './lines';

/** An option as it was found. */
export interface FoundOption {
	label: string;
	style: string;
	text: Markup[];
	plain: string;
	right: boolean;
	stressed: boolean;
	struck?: boolean;
	feedback: Markup[];
	line: number;
}

/** What a section of a text says of the questions in it. */
export interface OfSection {
	/** The points of each question, as written. */
	points: string | null;
	/** The points of all of them together, and the line that says so. */
	total: { points: number; line: Line } | null;
	trueFalse: boolean;
}

/** What is said of questions where no section says anything. */
export const ofNoSection = (): OfSection => ({ points: null, total: null, trueFalse: false });

/** A question of a marked text while it is read. */
export interface Block {
	number: number;
	numbered: boolean;
	style: string;
	/** Its number stands out, as in bold. */
	stressed: boolean;
	indent: number;
	stem: { line: Line; gap: boolean }[];
	options: FoundOption[];
	draft: Draft;
	answers: { value: string; line: number }[];
	/** A line said that the answer comes, and did not give it: how many of its parts have come so far; -1 where none is awaited. */
	awaited: number;
	/** What the list of answers says, and why that is right where it says so. */
	listed: string | null;
	listedReason: string | null;
	pairs: [Line, Line][];
	/** The lines or the table that the pairs were read from, where they turn out to be a part of the stem. */
	pairSources: Line[];
	from: number;
	to: number;
	notes: Omit<Report, 'place'>[];
	boxed: boolean;
	/** The line at which a list of numbers within the question ends; -1 where it has none. */
	listEnd: number;
	/** Numbered things in front of lettered options: statements that the options speak of, or things to match. */
	statements: FoundOption[];
	/** What its section says of its questions; one and the same for all of them. */
	each: OfSection;
	/** The last thing that was read, which a line that runs on belongs to. */
	last: 'stem' | 'option' | 'feedback' | 'option-feedback' | 'pair' | 'field';
}

/** A question of which only the beginning is known. `line` is where it begins. */
export function emptyBlock(
	number: number,
	numbered: boolean,
	style: string,
	line: Line,
	pending: Partial<Draft> = {}
): Block {
	return {
		number,
		numbered,
		style,
		stressed: line.stressed || /^<(b|strong)>/.test(line.markup),
		indent: line.indent,
		stem: [],
		options: [],
		draft: { ...emptyDraft(), ...pending },
		answers: [],
		awaited: -1,
		listed: null,
		listedReason: null,
		pairs: [],
		pairSources: [],
		from: line.number,
		to: line.number,
		notes: [],
		boxed: false,
		listEnd: -1,
		statements: [],
		each: ofNoSection(),
		last: 'stem'
	};
}

/** The stem of a question as far as it is read, as plain text. */
export function stemText(block: Block): string {
	return plainText(block.stem.map((one) => one.line.markup).join(' '));
}

/** Whether a question asks something, and nothing so far says how it is answered. */
export function isOpen({ stem, options, answers, pairs, draft }: Block): boolean {
	return stem.length > 0 && !options.length && !answers.length && !pairs.length && draft.kind === null;
}

/** Whether every option but the last has feedback of its own, so that what comes next is that of the last. */
export function othersHaveFeedback({ options }: Block): boolean {
	return options.length > 1 && options.every((one, at) => one.feedback.length > 0 === at < options.length - 1);
}

/** Notes something about a question. */
export function note(
	block: Block | null,
	rule: ReaderRule,
	message: string,
	severity: Report['severity'] = 'untidy',
	words?: string[]
): void {
	block?.notes.push({ rule, severity, message, ...(words ? { words } : {}) });
}
