import { number, object } from 'yup';
import { bounds as most } from '../model/bounds';
import { type Fields, credit, list, word } from '../model/fields';
import { bounds, combination, picture, shapeFields } from '../model/pieces';
import type { QuestionCommon } from '../model/question';
import { bestOf, bounded, scaledCredit } from './answers';
import { inShape, middleOf } from './areas';
import type { KindOf, Marked, Response, SettledPicture } from './kind';
import { creditPart, percent, picturePart, shapeInWords } from './part';
import { settledShape } from './settle';

const fields = {
	picture,
	shapes: list(object({ ...shapeFields, credit: credit() }).defined()),
	/** Areas that can be seen and chosen, or any point. */
	mode: word('areas', 'points'),
	/** How many may be chosen; 0 is as many as one likes. */
	picks: number().min(0).defined(),
	/** The credit of a point outside of every shape. */
	outside: credit(),
	combination: combination(),
	bounds
};

/** A question answered by pointing at a picture. */
export type HotspotQuestion = { kind: 'hotspot' } & QuestionCommon & Fields<typeof fields>;

/** Marks points or areas of a picture; a shape counts once, however often it is hit. */
function mark(question: HotspotQuestion, response: Response): Marked {
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

/** Points or areas that earn something, at most as many as may be chosen. */
function rightPoints({ shapes, picks, mode }: HotspotQuestion): Response {
	const right = shapes.filter((shape) => shape.credit > 0).sort((a, b) => b.credit - a.credit);
	const chosen = picks ? right.slice(0, picks) : right;
	return mode === 'areas' ? { options: chosen.map((shape) => shape.identifier) } : { points: chosen.map(middleOf) };
}

function content(question: HotspotQuestion, settled: SettledPicture): Record<string, unknown> {
	const { shapes, mode, picks, outside, combination, bounds } = question;
	const whole = combination === 'all';
	// with a single place, all of them is that one
	const single = shapes.length === 1 && (whole || outside === 0);
	return {
		picture: settled(question.picture),
		shapes: shapes.map((shape) => ({ ...settledShape(shape), credit: shape.credit })),
		mode,
		picks,
		outside: whole ? 0 : outside,
		combination: single ? 'sum' : combination,
		bounds: whole ? { lower: null, upper: null } : bounds
	};
}

const best = (question: HotspotQuestion) => Math.max(0, mark(question, rightPoints(question)).credit ?? 0);

/** A question answered by pointing at a picture. */
export const hotspot: KindOf<HotspotQuestion> = {
	name: 'Hotspot',
	fields,
	marks: 'program',
	rich: (question) => question,
	wording: ({ picture, shapes }) => [
		picture.name,
		picture.alt,
		...shapes.map(({ shape, coordinates }) => `${shape} ${coordinates.join(' ')}`)
	],
	content,
	parts: (question) => [
		...question.shapes.map((shape, at) => ({
			name: `area ${at + 1}`,
			text: `${shapeInWords(shape)} (${percent(shape.credit)})`
		})),
		picturePart(question.picture),
		{ name: 'how many may be chosen', text: `${question.picks || 'any number of'} ${question.mode}` },
		{ name: 'outside', text: question.outside ? percent(question.outside) : '' },
		creditPart(question)
	],
	plain: ({ picture, shapes }) => ({ picture, shapes }),
	counts: ({ shapes }) => [[shapes.length, most.options, 'places']],
	mark,
	right: rightPoints,
	wrong({ mode, shapes }) {
		if (mode === 'points') return { points: [[-1, -1]] };
		const wrong = shapes.find((shape) => shape.credit <= 0);
		return wrong ? { options: [wrong.identifier] } : null;
	},
	best,
	keyless: ({ shapes }) => (bestOf(shapes) ? null : 'No place in the picture is marked as right. Mark the key.'),
	scaled: (question, by) => ({
		...question,
		shapes: question.shapes.map((shape) => scaledCredit(shape, by)),
		bounds: { ...question.bounds, upper: null }
	}),
	dealt: (question) => question,
	hasKey: (question) => best(question) > 0
};
