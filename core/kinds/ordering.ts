import { object } from 'yup';
import { plainText } from '../markup/text';
import { bounds as most } from '../model/bounds';
import { type Fields, list, maybeTruth, text, word } from '../model/fields';
import type { QuestionCommon } from '../model/question';
import { rounded } from './answers';
import type { KindOf, Marked, Response } from './kind';
import { rich, yesOrNo } from './part';

const fields = {
	/** In the right order. */
	items: list(object({ identifier: text(), text: text() }).defined()),
	/** The identifiers in the order in which they are shown where nothing is shuffled. */
	presented: list(text()),
	/** All in place or nothing; or each one in its own place for itself. */
	rule: word('all', 'position'),
	shuffle: maybeTruth()
};

/** A question answered by putting things in order. */
export type OrderingQuestion = { kind: 'ordering' } & QuestionCommon & Fields<typeof fields>;

const placesShown = ({ presented, items }: OrderingQuestion) =>
	presented.map((identifier) => items.findIndex((item) => item.identifier === identifier));

const rightOrder = ({ items }: OrderingQuestion): Response => ({ order: items.map((item) => item.identifier) });

/** Marks an order: all in place, or each one that is in its place. */
function mark({ items, rule }: OrderingQuestion, response: Response): Marked {
	const order = response.order ?? [];
	if (!order.length) return { credit: 0, reason: 'Nothing is put in order.' };
	const right = items.filter((item, at) => order[at] === item.identifier).length;
	const all = right === items.length && order.length === right;
	return {
		credit: rule === 'all' ? (all ? 1 : 0) : rounded(right / Math.max(1, items.length)),
		reason: `${right} of ${items.length} in the right place.`
	};
}

const best = (question: OrderingQuestion) => Math.max(0, mark(question, rightOrder(question)).credit ?? 0);

/** A question answered by putting things in order. */
export const ordering: KindOf<OrderingQuestion> = {
	name: 'Ordering',
	fields,
	marks: 'program',
	rich: (question, change) => ({
		...question,
		items: question.items.map((item, at) => ({ ...item, text: change(item.text, `item ${at + 1}`) }))
	}),
	wording: ({ items }) => items.map((item) => item.text),
	content: (question) => ({
		items: question.items.map((item) => item.text),
		presented: placesShown(question),
		// of two things, both are in place or neither
		rule: question.items.length < 3 ? 'all' : question.rule,
		shuffle: question.shuffle
	}),
	parts: (question) => [
		...question.items.map((item, at) => rich(`place ${at + 1}`, item.text)),
		{
			name: 'shown in the order',
			text: placesShown(question)
				.map((place) => place + 1)
				.join(', ')
		},
		{ name: 'credit', text: question.rule === 'all' ? 'all or nothing' : 'each place for itself' },
		{ name: 'shuffled', text: yesOrNo(question.shuffle) }
	],
	plain: ({ items, shuffle }) => ({ order: items.map((item) => plainText(item.text)), shuffle }),
	counts: ({ items }) => [[items.length, most.options, 'things to put in order']],
	mark,
	right: rightOrder,
	wrong: ({ items }) => (items.length > 1 ? { order: items.map((item) => item.identifier).reverse() } : null),
	best,
	// the order of its items is the key
	keyless: () => null,
	scaled: (question) => question,
	dealt(question, { shuffled }) {
		if (question.shuffle === false) return question;
		const right = question.items.map((item) => item.identifier);
		let presented = shuffled(right);
		// never in the right order
		if (right.length > 1 && String(presented) === String(right)) presented = [...presented.slice(1), presented[0]!];
		return { ...question, presented };
	},
	hasKey: (question) => best(question) > 0
};
