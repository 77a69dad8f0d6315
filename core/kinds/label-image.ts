import { object } from 'yup';
import { plainText } from '../markup/text';
import { bounds as most } from '../model/bounds';
import { type Fields, list, maybeNumber } from '../model/fields';
import { bounds, combination, pair, picture, shapeFields, side } from '../model/pieces';
import type { QuestionCommon } from '../model/question';
import type { KindOf } from './kind';
import { markPairs, pairless, rightPairs, scaledPairs, settledPairs, wrongPair } from './pairs';
import { creditPart, pairParts, picturePart, saidBy, shapeInWords, sideParts, usesInWords } from './part';
import { settledShape } from './settle';

const fields = {
	picture,
	labels: list(side),
	targets: list(object({ ...shapeFields, uses: maybeNumber() }).defined()),
	/** `left` is a label, `right` a target. */
	pairs: list(pair),
	combination: combination(),
	bounds
};

/** A question answered by laying labels on a picture. */
export type LabelImageQuestion = { kind: 'label-image' } & QuestionCommon & Fields<typeof fields>;

/** A question answered by laying labels on a picture. */
export const labelImage: KindOf<LabelImageQuestion> = {
	name: 'Label image',
	fields,
	marks: 'program',
	rich: (question, change) => ({
		...question,
		labels: question.labels.map((label, at) => ({ ...label, text: change(label.text, `label ${at + 1}`) }))
	}),
	wording: ({ picture, labels, targets }) => [
		picture.name,
		picture.alt,
		...labels.map((label) => label.text),
		...targets.map(({ shape, coordinates }) => `${shape} ${coordinates.join(' ')}`)
	],
	content: (question, settled) => ({
		picture: settled(question.picture),
		labels: question.labels.map(({ text, uses }) => ({ text, uses })),
		targets: question.targets.map((target) => ({ ...settledShape(target), uses: target.uses })),
		...settledPairs(question, question.labels, question.targets)
	}),
	parts: (question) => [
		...pairParts(
			question.pairs,
			(pair) =>
				`${saidBy(question.labels, pair.left)} at place ${question.targets.findIndex((target) => target.identifier === pair.right) + 1}`
		),
		...sideParts('label', question.labels),
		...question.targets.map((target, at) => ({
			name: `place ${at + 1}`,
			text: shapeInWords(target) + usesInWords(target.uses)
		})),
		picturePart(question.picture),
		creditPart(question)
	],
	plain: ({ picture, labels, pairs }) => ({
		picture,
		labels: labels.map((label) => plainText(label.text)),
		pairs: pairs.filter((pair) => pair.credit > 0).map((pair) => [pair.left, pair.right])
	}),
	counts: ({ labels, targets }) => [[Math.max(labels.length, targets.length), most.options, 'labels or places']],
	mark: markPairs,
	right: rightPairs,
	wrong: (question) => wrongPair(question, question.labels, question.targets),
	best: (question) => Math.max(0, markPairs(question, rightPairs(question)).credit ?? 0),
	keyless: pairless,
	scaled: scaledPairs,
	dealt: (question) => question,
	hasKey: ({ pairs }) => pairs.some((pair) => pair.credit > 0)
};
