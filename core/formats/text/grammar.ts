import { note, type Block } from './block';
import { pointsInBrackets } from './brackets';
import { Ahead } from './ahead';
import { joinColumns } from './columns';
import { constructs } from './constructs';
import { finish } from './finish';
import { withLatinLabels } from './alphabets';
import { frontMatter } from './front-matter';
import { giveAnswers, type ListedAnswer } from './keys';
import type { Line } from './lines';
import { joinLabels, signNumbers } from './loose';
import { readMarkdown, unfold } from './markdown';
import { introduce, leaveOut, shareTotals } from './said';
import { emptyText, TextState, type TextFound } from './state';
import { linesOfStatements } from './statement-table';
import { takeTable } from './table-line';
import { linesOfForm } from './tables';
import { numberParagraphs } from './unnumbered';
import type { Report } from '../../reports/report';

/** The report that a list of answers names a question that is not there. `line` is the line of the entry. */
export function keyWithoutQuestion(file: string, number: number, value: string, line: number): Report {
	return {
		rule: 'key-without-question',
		severity: 'doubtful',
		message: `The answer list says “${number}. ${value}” (line ${line}), and there is no question ${number}.`,
		place: { file, line }
	};
}

/** Reads marked text: one lenient grammar over what people write. It never throws; what is not understood is reported. */
export function readMarkedText(lines: Line[], file: string, format: string): TextFound {
	return new TextReader(file, format).read(lines);
}

/**
 * Reads a text, whole or in parts. A text in parts has to be parted between two questions, and gives the questions of a
 * part but the last one, which may go on; what headings and sections say holds on from part to part.
 */
export class TextReader {
	readonly #state: TextState;
	#started = false;
	/** The last of the numbers without a sign that count on through the text. */
	#unsigned = 0;
	/** How many numbers questions were given here, since they had none. */
	#given = 0;

	constructor(file: string, format: string) {
		this.#state = new TextState(file, format);
	}

	/** What a whole text holds. */
	read(lines: Line[]): TextFound {
		const state = this.#state;
		this.#take(lines, Infinity);
		this.#close();
		const blocks = state.blocks.map(({ block }) => block);
		for (const { number, value, line } of giveAnswers(state.keys, blocks))
			state.found.reports.push(keyWithoutQuestion(state.file, number, value, line));
		return this.#give(blocks.length, state.ready.length === 0);
	}

	/**
	 * What one part of a text holds; its lines from the one with the number `until` on are only looked at, and come again in
	 * front of the next part. `keys` gives what the list of answers of the text says of its questions, in their order.
	 */
	part(lines: Line[], until: number, keys: (block: Block) => void): TextFound {
		const { blocks } = this.#state;
		this.#take(lines, until);
		const whole = until === Infinity;
		if (whole) this.#close();
		const count = whole ? blocks.length : Math.max(0, blocks.length - 1);
		for (const { block } of blocks.slice(0, count)) keys(block);
		return this.#give(count, false);
	}

	/** The entries of the list of answers that were read since this was last asked for. */
	listed(): ListedAnswer[] {
		return this.#state.keys.splice(0);
	}

	#take(given: Line[], until: number): void {
		const state = this.#state;
		const signed = signNumbers(readMarkdown(withLatinLabels(unfold(given))), this.#unsigned, until);
		this.#unsigned = signed.last;
		state.lines = this.#numbered(joinLabels(signed.lines), until);
		state.ahead = new Ahead(state.lines, this.#started ? state.ahead : null);
		let start = 0;
		if (!this.#started) {
			const front = frontMatter(state.lines);
			start = front.length;
			state.before.push(...front.before);
			this.#started = true;
		}
		state.lines.forEach((line, at) => {
			if (at >= start && line.number < until) this.#line(line, at);
		});
	}

	/** The lines with the numbers that their questions lack, which is said once. */
	#numbered(given: Line[], until: number): Line[] {
		const { lines, count, unsure } = numberParagraphs(given, this.#state.format === 'docx', this.#given, until);
		if (count && !this.#given)
			this.#state.report(
				'no-number',
				`The questions of “${this.#state.file}” have no numbers: each paragraph in front of options or of an answer was read as a question.`,
				given[0]!.number
			);
		if (unsure)
			this.#state.report(
				'key-without-question',
				`The list of answers of “${this.#state.file}” does not go with its questions, which have no numbers: nothing tells which belongs to which. Number the questions, or set their keys here.`,
				given[0]!.number,
				'doubtful'
			);
		this.#given += count;
		return lines;
	}

	#close(): void {
		if (!this.#state.begun) introduce(this.#state);
		leaveOut(this.#state, this.#state.before.splice(0));
	}

	/** Gives the first so many of the blocks as questions, and forgets them. `joins`: questions in two columns are put together. */
	#give(count: number, joins: boolean): TextFound {
		const state = this.#state;
		const given = state.blocks.slice(0, count);
		const blocks = given.map(({ block }) => block);
		pointsInBrackets(blocks);
		shareTotals(state, blocks);
		let at = 0;
		const ready = (before: number) => {
			while (at < state.ready.length && state.ready[at]!.after <= before)
				state.found.questions.push(state.ready[at++]!.found);
		};
		(joins ? joinColumns(given) : given).forEach(({ block, category }, place) => {
			ready(place);
			const question = finish(block, category, state.file, state.format);
			state.found.questions.push({ ...question, from: block.from, to: block.to });
		});
		ready(count);
		state.blocks.splice(0, count);
		state.ready = state.ready.slice(at).map((question) => ({ ...question, after: question.after - count }));
		const { found } = state;
		state.found = emptyText();
		return found;
	}

	#line(line: Line, at: number): void {
		const state = this.#state;
		if (line.table) {
			const last = state.block ?? state.blocks.at(-1)?.block;
			const next = (last?.number ?? 0) + 1;
			const form = state.inKey ? null : (linesOfForm(line, next) ?? linesOfStatements(line, next));
			if (form) {
				state.gap = true;
				for (const written of form) this.#line(written, at);
				return;
			}
			takeTable(state, line);
			state.gap = false;
			return;
		}
		if (!line.text && !/<(img|math|object)\b/.test(line.markup)) {
			state.gap = true;
			return;
		}
		for (const odd of line.odd ?? []) note(state.block, odd.rule, odd.message);
		constructs.some((construct) => construct(state, line, at));
		state.gap = false;
	}
}
