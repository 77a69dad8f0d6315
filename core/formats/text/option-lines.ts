import type { Ahead } from './ahead';
import type { Block } from './block';
import type { Line } from './lines';
import { fieldOf, placeOfLabel, type OptionMark } from './marks';

/** Where a line stands that may be an option. */
export interface OptionPlace {
	line: Line;
	/** Its place among the lines, from 0. */
	at: number;
	ahead: Ahead;
	/** There is an empty line in front of it. */
	gap: boolean;
	/** It may begin a question as well. */
	alsoQuestion: boolean;
}

/** Whether a number in front of a line is that of an option, since questions are numbered in another way, or lists run within one. */
function takesNumber(block: Block, option: OptionMark, place: number | null, where: OptionPlace): boolean {
	const { line, at, alsoQuestion } = where;
	const last = block.options.at(-1);
	if (last && !/^\d+$/.test(block.options[0]!.label)) return false;
	const stressed = line.stressed || /^<(b|strong)>/.test(line.markup);
	const same = block.style === option.style && line.list === null && block.stressed === stressed;
	// behind an answer nothing is chosen from any more: the numbers begin again
	if (!last && same && block.answers.length) return false;
	if (!last && same && place === 0 && block.numbered && line.indent <= block.indent)
		block.listEnd = where.ahead.listEnd(at, block);
	if (same && line.indent <= block.indent && at > block.listEnd) return false;
	if (alsoQuestion && block.style === 'list' && line.list?.level === 0) return false;
	// a list within the list of questions may count on through all of them, as a word processor lets it
	const countsOn = option.style === 'list' && (line.list?.level ?? 0) > 0;
	if (!last) return place === 0 || countsOn;
	if (countsOn && last.style === 'list') return Number(option.label) === Number(last.label) + 1;
	return last.style === option.style && place === block.options.length;
}

/** Whether a line that looks like an option is one of the question at hand. */
export function takesOption(block: Block, option: OptionMark, where: OptionPlace): boolean {
	if (option.ticked !== null) return fieldOf(option.rest)?.name !== 'answer';
	const last = block.options.at(-1);
	if (option.bullet) {
		if (fieldOf(where.line)) return false;
		return last ? last.style === 'bullet' && block.last !== 'feedback' : block.stem.length > 0 && block.last === 'stem';
	}
	if (!block.stem.length && !block.options.length) return false;
	const place = placeOfLabel(option.label, last ? /^i$/i.test(block.options[0]!.label) : true);
	if (/^\d+$/.test(option.label)) return takesNumber(block, option, place, where);
	if (place === null) return false;
	if (!last) return place === 0 || placeOfLabel(option.label, false) === 0 || option.style === 'list' || option.starred;
	if (last.style === 'box' || last.style === 'bullet') return false;
	const expected = block.options.length;
	const counted = /^\d+$|^[ivx]+$/i.test(block.options[0]!.label) && expected > 1;
	if (counted && /^a$/i.test(option.label) && !block.answers.length && !block.statements.length) {
		// what was counted in front of lettered options are statements, or things to match
		block.statements = block.options.splice(0);
		return true;
	}
	if (place === expected || placeOfLabel(option.label, false) === expected) return true;
	if (placeOfLabel(option.label, false) === 0 && where.gap && block.answers.length) return false;
	// skipped or repeated letters in the same hand are still options
	return last.style === option.style;
}
