import type { FoundPart, FoundQuiz } from '../../model/quiz';
import type { Report } from '../../reports/report';
import { childOf, childrenOf, descendants, textOf, trimmed, type XmlElement } from '../../xml/tree';
import type { DocumentContext } from '../format';
import { parseNumber } from '../../numbers/numbers';
import { passOf } from './around';

const conditions = ['selection_metadata', 'and_selection', 'or_selection', 'not_selection', 'selection_extension'];

/** What a condition of a selection says, in the words of the file. */
function wordsOf(node: XmlElement): string {
	if (node.name === 'selection_metadata') {
		const { mdname = '', mdoperator = 'EQ' } = node.attributes;
		return `${mdname} ${mdoperator} ${trimmed(node)}`;
	}
	const inner = childrenOf(node).map(wordsOf).filter(Boolean);
	const joined = inner.join(node.name === 'or_selection' ? ' or ' : ' and ') || textOf(node).trim();
	return node.name === 'not_selection' ? `not (${joined})` : joined;
}

/**
 * Reads how a section draws (QTI 1.2 selection and ordering information model, 3): the numbers and the bank into its
 * part, and a part more for each further bank. What no part can hold, such as a choice by metadata, is reported.
 */
export function readSelection(
	node: XmlElement,
	part: FoundPart,
	context: DocumentContext
): { more: FoundPart[]; report: Report | null } {
	const order = childOf(node, 'order')?.attributes.order_type;
	if (order) part.shuffle = /random|shuffle/i.test(order);
	const more: FoundPart[] = [];
	const said: string[] = [];
	for (const selection of descendants(node, 'selection')) {
		const bank = trimmed(childOf(selection, 'sourcebank_ref')) || null;
		const draw = parseNumber(trimmed(childOf(selection, 'selection_number')));
		said.push(...conditions.flatMap((name) => childrenOf(selection, name)).map(wordsOf));
		if (bank !== null && part.bank !== null && bank !== part.bank)
			more.push({ ...part, bank, draw, questions: [], path: [...part.path] });
		else {
			part.bank ??= bank;
			if (draw !== null) part.draw = (part.draw ?? 0) + draw;
		}
	}
	const words = said.filter(Boolean).map((one) => `“${one}”`);
	if (!words.length) return { more, report: null };
	return {
		more,
		report: {
			rule: 'draw-condition',
			severity: 'doubtful',
			message: `“${part.title}” draws only questions with ${words.join(' and ')}. A part of a quiz was made that draws from all of them; narrow its pool by hand.`,
			place: { file: context.file, line: node.line }
		}
	};
}

/** How an assessment draws and orders its sections: how many of them, null for all, and whether they come in a random order. */
export function readMixing(node: XmlElement): { partsShuffled: boolean; draw: number | null } {
	return {
		partsShuffled: /random|shuffle/i.test(childOf(node, 'order')?.attributes.order_type ?? ''),
		draw: parseNumber(descendants(node, 'selection_number').map(trimmed).find(Boolean) ?? '')
	};
}

/** Says that something draws among the sections in it, which can be held only where they are plain and of one size. */
export function drawsSections(title: string, draw: number | null, place: Report['place']): Report {
	return {
		rule: 'draws-sections',
		severity: 'doubtful',
		message: `“${title}” draws ${draw} of the sections in it. That can be held only where the sections are of one size and give all that is in them in its order: each of those sections became a part of its own. Look at which of them are wanted, and how many are drawn.`,
		place
	};
}

/**
 * Reads how the points of an assessment come together (3.2.1): its cut value becomes the pass mark of the quiz. Gives what
 * is more than that; null where nothing is.
 */
export function scoringOf(node: XmlElement, quiz: FoundQuiz, context: DocumentContext): Report | null {
	const model = node.attributes.scoremodel ?? 'SumOfScores';
	const cut = descendants(node, 'decvar').find(({ attributes }) => attributes.cutvalue);
	const pass = passOf(cut?.attributes ?? {});
	if (pass !== null) quiz.settings = { ...quiz.settings, pass };
	const said = [
		...(/^sum\s*of\s*scores$/i.test(model) ? [] : [`“scoremodel: ${model}”`]),
		...(cut && pass === null ? [`“cutvalue: ${cut.attributes.cutvalue}”`] : [])
	];
	if (!said.length) return null;
	return {
		rule: 'quiz-rules',
		severity: 'doubtful',
		message: `“${quiz.title}” also says ${said.join(', ')}, which a quiz here does not hold. The questions are not touched by that; set it up by hand where it is needed.`,
		place: { file: context.file, line: node.line }
	};
}
