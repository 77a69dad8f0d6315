import { fold } from '../markup/text';
import { bounds as most } from '../model/bounds';
import { type Fields, list } from '../model/fields';
import { acceptedText, type AcceptedText } from '../model/pieces';
import type { QuestionCommon } from '../model/question';
import { acceptsText, bestOf, rounded, scaledCredit } from './answers';
import type { KindOf } from './kind';
import { textsInWords } from './part';
import { settledTexts } from './settle';

const fields = { accepted: list(acceptedText) };

/** A question answered with a word or a phrase. */
export type ShortAnswerQuestion = { kind: 'short-answer' } & QuestionCommon & Fields<typeof fields>;

/** The accepted texts that can be written at all: an empty answer earns nothing. */
const writable = (accepted: AcceptedText[]) => accepted.filter(({ text }) => fold(text));

/** A question answered with a word or a phrase. */
export const shortAnswer: KindOf<ShortAnswerQuestion> = {
	name: 'Short answer',
	fields,
	marks: 'program',
	rich: (question) => question,
	wording: ({ accepted }) => accepted.map((entry) => entry.text),
	content: ({ accepted }) => ({ accepted: settledTexts(accepted) }),
	parts: ({ accepted }) => [{ name: 'accepted', text: textsInWords(accepted) }],
	plain: ({ accepted }) => ({ accepted }),
	counts: ({ accepted }) => [[accepted.length, most.options, 'accepted answers']],
	mark({ accepted }, response) {
		const given = fold(response.text ?? '');
		if (!given) return { credit: 0, reason: 'Nothing is written.' };
		const hits = accepted.filter((entry) => acceptsText(entry, given));
		if (!hits.length) return { credit: 0, reason: `“${given}” is not among the accepted answers.` };
		const credit = Math.max(...hits.map((entry) => entry.credit));
		const worth = credit < 1 ? ` for ${Math.round(credit * 100)} percent` : '';
		return { credit, reason: `“${given}” is accepted${worth}.` };
	},
	right({ accepted }) {
		const best = bestOf(writable(accepted));
		return best ? { text: best.text } : null;
	},
	wrong: () => ({ text: 'anything else' }),
	best: ({ accepted }) => rounded(Math.max(0, ...writable(accepted).map((entry) => entry.credit))),
	keyless: ({ accepted }) =>
		bestOf(writable(accepted)) ? null : 'No answer is accepted. Write the answer that earns the points.',
	scaled: (question, by) => ({
		...question,
		accepted: question.accepted.map((entry) => scaledCredit(entry, by))
	}),
	dealt: (question) => question,
	hasKey: ({ accepted }) => writable(accepted).some((entry) => entry.credit > 0)
};
