import { takes } from './brackets';
import { emptyBlock, note, type Block } from './block';
import { takeField } from './constructs/field';
import { kindLine, kindOf } from './kind-words';
import type { Line } from './lines';
import { cut, fieldOf, numberMark, optionMark, type NumberMark } from './marks';
import { addOptions, optionsBehindStem } from './options';
import { introduce, leaveOut } from './said';
import { takeStem } from './stem';
import type { TextState } from './state';

/** What may stand right behind a number, with the question in the next line. */
const fieldsBesideNumber = new Set(['kind', 'points', 'title', 'tags', 'difficulty']);

/** Whether a number begins a question. */
export function startsQuestion(state: TextState, { number, rest }: NumberMark, line: Line, at: number): boolean {
	const block = state.block;
	if (!rest.text && !rest.markup && line.list === null && !/^\s*\W*(q|question|item|problem)/i.test(line.text)) {
		// a number by itself, with its question in the next line
		const next = state.ahead.next(at);
		const last = block ?? state.blocks.at(-1)?.block;
		return number === (last?.number ?? 0) + 1 && next !== undefined && !numberMark(next) && !fieldOf(next);
	}
	// a number at the beginning of a line that runs on, such as "12. May", is not a question
	if (block && !state.gap && !block.options.length && block.last === 'stem' && block.numbered) {
		if (block.stem.length && number !== block.number + 1 && number !== 1 && line.indent >= block.indent)
			return number > block.number && number < block.number + 4;
	}
	return true;
}

/** Takes the pictures that stand right above a question, in lines of their own. */
function picturesAbove(state: TextState): Line[] {
	const words = state.before.findLastIndex((line) => line.text !== '');
	return state.before.splice(words + 1);
}

/** Begins the block of a question. */
export function startQuestion(state: TextState, number: number, numbered: boolean, style: string, line: Line): void {
	const pictures = state.begun ? picturesAbove(state) : [];
	if (!state.begun) introduce(state);
	else leaveOut(state, state.before.splice(0));
	state.begun = true;
	if (numbered && state.block && number !== state.block.number + 1 && number !== 1 && state.block.numbered)
		state.report(
			'odd-number',
			`After question ${state.block.number} comes question ${number} (line ${line.number}). Both were read.`,
			line.number
		);
	state.ended = false;
	state.block = { ...emptyBlock(number, numbered, style, line, state.pending), each: state.each };
	state.pending = {};
	state.block.stem.push(...pictures.map((picture) => ({ line: picture, gap: true })));
	for (const one of line.odd ?? []) note(state.block, one.rule, one.message);
	state.blocks.push({ block: state.block, category: state.category() });
}

/** Begins a question with what stands behind its number. */
export function beginQuestion(state: TextState, question: NumberMark, line: Line, at: number): void {
	startQuestion(state, question.number, true, question.style, line);
	const block = state.block!;
	if (question.answer) block.answers.push({ value: question.answer, line: line.number });
	let { rest } = question;
	if (question.bracket && !takes(question.bracket.slice(1, -1), block.draft))
		rest = { ...rest, text: `${question.bracket} ${rest.text}`, markup: `${question.bracket} ${rest.markup}` };
	const field = fieldOf(rest);
	const asked = state.ahead.next(at);
	if (field && fieldsBesideNumber.has(field.name) && asked && !numberMark(asked) && !optionMark(asked)) {
		takeField(state, field.name, field.value, rest, at);
		block.last = 'stem';
		return;
	}
	const kind = kindLine.exec(rest.text);
	if (kind && !rest.markup.includes('<')) block.draft.kind = kindOf(kind[1]!) ?? block.draft.kind;
	else if (rest.text || rest.markup) {
		rest = optionsBehindStemOf(state, block, rest, at);
		if (rest.text || rest.markup) takeStem(state, block, rest);
	}
}

/** Options that stand behind the stem on its own line: "Which is a bend? (a) bowline (b) sheet bend". */
function optionsBehindStemOf(state: TextState, block: Block, line: Line, at: number): Line {
	if (block.stem.length || /^\W*a[.)\]]/i.test(state.ahead.next(at)?.text ?? '')) return line;
	const found = optionsBehindStem(line);
	if (!found) return line;
	takeStem(state, block, found.stem);
	addOptions(block, found.options);
	return cut(line, line.text.length);
}
