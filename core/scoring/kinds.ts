import { datasetOf, toleranceAround } from '../calculated/datasets';
import { ExpressionError } from '../calculated/expression';
import { parseNumber } from '../formats/numbers';
import type {
	Blank,
	CalculatedQuestion,
	FillBlanksQuestion,
	HotspotQuestion,
	LabelImageQuestion,
	MatchingQuestion,
	OrderingQuestion
} from '../model/question';
import { bestNumber, creditOfNumber, creditOfText, wrongNumber } from './answers';
import type { Response } from './score';
import { inShape, middleOf } from './shapes';

const round = (value: number) => Math.round(value * 1e6) / 1e6;
const bounded = (value: number, { lower, upper }: { lower: number | null; upper: number | null }) =>
	round(Math.max(-1, Math.min(1, Math.min(upper ?? Infinity, Math.max(lower ?? -Infinity, value)))));

/** A share of the points, and why, in a sentence for people; null where a person has to mark. */
export interface Marked {
	credit: number | null;
	reason: string;
}

/** What a blank earns of its own share for what stands in it; null where a person has to mark it. */
export function blankCredit(blank: Blank, answer: string[]): number | null {
	const [first = ''] = answer;
	if (blank.form === 'open') return null;
	if (!answer.some((one) => one.trim())) return 0;
	if (blank.form === 'text') return creditOfText(blank.accepted, first) ?? 0;
	if (blank.form === 'number') return creditOfNumber(blank.accepted, first, blank.whole) ?? 0;
	if (blank.form === 'word') return blank.words.find((one) => one.word === first)?.credit ?? 0;
	const chosen = blank.entries.filter((one) =>
		blank.several ? answer.includes(one.identifier) : one.identifier === first
	);
	return round(
		Math.max(
			-1,
			Math.min(
				1,
				chosen.reduce((sum, one) => sum + one.credit, 0)
			)
		)
	);
}

/** Marks blanks: each for its share, or all of them or nothing. */
export function markBlanks(question: FillBlanksQuestion, response: Response): Marked {
	const earned = question.blanks.map((blank) => ({
		blank,
		credit: blankCredit(blank, response.blanks?.[blank.identifier] ?? [])
	}));
	const open = earned.some((one) => one.credit === null);
	const right = earned.filter((one) => (one.credit ?? 0) >= 1 - 1e-6).length;
	const machine = earned.filter((one) => one.credit !== null).length;
	const said = `${right} of ${machine} right.`;
	if (open) return { credit: null, reason: `${said} A person has to mark the rest.` };
	if (question.combination === 'all') return { credit: right === earned.length && right ? 1 : 0, reason: said };
	const sum = earned.reduce((total, { blank, credit }) => total + blank.share * credit!, 0);
	return { credit: bounded(Math.abs(sum - 1) < 2e-6 ? 1 : sum, { lower: -1, upper: 1 }), reason: said };
}

const keyOf = (left: string, right: string) => `${left}\n${right}`;

/** Marks pairs: each for itself, or all of them and nothing else. */
export function markPairs(question: MatchingQuestion | LabelImageQuestion, response: Response): Marked {
	const made = new Set((response.pairs ?? []).map(([left, right]) => keyOf(left, right)));
	const right = question.pairs.filter((one) => one.credit > 0);
	const hit = right.filter((one) => made.has(keyOf(one.left, one.right))).length;
	const reason = made.size ? `${hit} of ${right.length} pairs right, ${made.size - hit} wrong.` : 'Nothing is paired.';
	if (!made.size) return { credit: 0, reason };
	if (question.combination === 'all')
		return { credit: hit === right.length && made.size === hit && hit ? 1 : 0, reason };
	const sum = question.pairs
		.filter((one) => made.has(keyOf(one.left, one.right)))
		.reduce((total, one) => total + one.credit, 0);
	return { credit: bounded(Math.abs(sum - 1) < 2e-6 ? 1 : sum, question.bounds), reason };
}

/** Marks an order: all in place, or each one that is in its place. */
export function markOrder(question: OrderingQuestion, response: Response): Marked {
	const order = response.order ?? [];
	if (!order.length) return { credit: 0, reason: 'Nothing is put in order.' };
	const right = question.items.filter((item, at) => order[at] === item.identifier).length;
	const reason = `${right} of ${question.items.length} in the right place.`;
	const all = right === question.items.length && order.length === right;
	return {
		credit: question.rule === 'all' ? (all ? 1 : 0) : round(right / Math.max(1, question.items.length)),
		reason
	};
}

/** Marks points or areas of a picture; a shape counts once, however often it is hit. */
export function markPoints(question: HotspotQuestion, response: Response): Marked {
	const points = response.points ?? [];
	const chosen = new Set(response.options ?? []);
	if (!points.length && !chosen.size) return { credit: 0, reason: 'Nothing is pointed at.' };
	let outside = 0;
	for (const point of points) {
		const hit = question.shapes.find((shape) => inShape(shape, point));
		if (hit) chosen.add(hit.identifier);
		else outside += 1;
	}
	const shapes = question.shapes.filter((shape) => chosen.has(shape.identifier));
	const right = question.shapes.filter((shape) => shape.credit > 0);
	const hits = shapes.filter((shape) => shape.credit > 0).length;
	const reason = `${hits} of ${right.length} right places, ${shapes.length - hits + outside} wrong.`;
	if (question.combination === 'all')
		return { credit: hits === right.length && hits && shapes.length === hits && !outside ? 1 : 0, reason };
	const sum = shapes.reduce((total, shape) => total + shape.credit, 0) + outside * question.outside;
	return { credit: bounded(Math.abs(sum - 1) < 2e-6 ? 1 : sum, question.bounds), reason };
}

/** Marks a calculated answer against the numbers of its seed. */
export function markCalculated(question: CalculatedQuestion, response: Response): Marked {
	const value = parseNumber(response.text ?? '');
	if (!response.text?.trim()) return { credit: 0, reason: 'Nothing is written.' };
	if (value === null) return { credit: 0, reason: `“${response.text.trim()}” is not a number.` };
	try {
		const { answer } = datasetOf(question, response.seed ?? '1');
		const tolerance = toleranceAround(question, answer);
		const right = Math.abs(value - answer) <= tolerance + 1e-9 * Math.max(1, Math.abs(answer));
		return {
			credit: right ? 1 : 0,
			reason: `The answer for these numbers is ${answer}${tolerance ? ` ± ${tolerance}` : ''}.`
		};
	} catch (error) {
		if (!(error instanceof ExpressionError)) throw error;
		return { credit: null, reason: `The answer cannot be worked out: ${error.message}.` };
	}
}

const bestOf = <T extends { credit: number }>(list: T[]) =>
	[...list].sort((a, b) => b.credit - a.credit).find((one) => one.credit > 0);

function rightBlank(blank: Blank): string[] {
	if (blank.form === 'text')
		return [bestOf(blank.accepted.filter((one) => one.match !== 'pattern'))?.text ?? ''].filter(Boolean);
	if (blank.form === 'number') return [bestNumber(blank.accepted, blank.whole) ?? ''].filter(Boolean);
	if (blank.form === 'word') return [bestOf(blank.words)?.word ?? ''].filter(Boolean);
	if (blank.form === 'open') return [];
	if (blank.several) return blank.entries.filter((one) => one.credit > 0).map((one) => one.identifier);
	return [bestOf(blank.entries)?.identifier ?? ''].filter(Boolean);
}

function wrongBlank(blank: Blank): string[] {
	if (blank.form === 'text') return ['anything else'];
	if (blank.form === 'number') return [wrongNumber(blank.accepted) ?? 'x'];
	if (blank.form === 'list') {
		const worst = [...blank.entries].sort((a, b) => a.credit - b.credit)[0];
		return worst && worst.credit < 1 ? [worst.identifier] : [];
	}
	return [];
}

/** A response of blanks that earns the most, or with `wrong` one that does not. */
export function blanksResponse(question: FillBlanksQuestion, wrong = false): Response {
	const answer = wrong ? wrongBlank : rightBlank;
	return { blanks: Object.fromEntries(question.blanks.map((blank) => [blank.identifier, answer(blank)])) };
}

/** The pairs that earn something. */
export function pairsResponse(question: MatchingQuestion | LabelImageQuestion): Response {
	return {
		pairs: question.pairs.filter((one) => one.credit > 0).map((one): [string, string] => [one.left, one.right])
	};
}

/** Points or areas that earn something, at most as many as may be chosen. */
export function pointsResponse(question: HotspotQuestion): Response {
	const right = question.shapes.filter((shape) => shape.credit > 0).sort((a, b) => b.credit - a.credit);
	const chosen = question.picks ? right.slice(0, question.picks) : right;
	return question.mode === 'areas'
		? { options: chosen.map((shape) => shape.identifier) }
		: { points: chosen.map(middleOf) };
}
