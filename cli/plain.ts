import { beginning, plainText } from '../core/markup/text';
import { isChoice, type Blank, type Question } from '../core/model/question';
import { acceptedNumberText } from '../core/scoring/score';
import type { FoundQuiz } from '../core/model/quiz';

/** A question in the plain form that belongs to no format. */
export function plainQuestion(question: Question): Record<string, unknown> {
	const out: Record<string, unknown> = {
		title: question.title || null,
		kind: question.kind,
		category: question.category,
		points: question.points,
		stem: [question.stimulus?.content ?? '', question.stem].map(plainText).filter(Boolean).join(' ')
	};
	if (isChoice(question)) {
		out.options = question.options.map((option) => ({
			text: plainText(option.text),
			credit: option.credit,
			...(option.feedback ? { feedback: plainText(option.feedback) } : {})
		}));
		out.shuffle = question.shuffle;
	}
	if (question.kind === 'short-answer') out.accepted = question.accepted;
	if (question.kind === 'numeric')
		out.numeric = question.accepted.map((one) =>
			'value' in one ? one : { min: one.min, max: one.max, credit: one.credit }
		);
	Object.assign(out, plainParts(question));
	const feedback = Object.entries(question.feedback).map(([part, markup]) => [part, plainText(markup)]);
	if (feedback.length) out.feedback = Object.fromEntries(feedback);
	const media = question.attachments.filter((attachment) => !attachment.missing).map((attachment) => attachment.name);
	if (media.length) out.media = media;
	return out;
}

/** What is asked for and what is right, for the kinds that are not choices, words or numbers. */
function plainParts(question: Question): Record<string, unknown> {
	switch (question.kind) {
		case 'fill-blanks': {
			const word = new Map(question.bank.map((one) => [one.identifier, plainText(one.text)]));
			const entries = question.blanks.map((blank) => [blank.identifier, plainBlank(blank, word)]);
			return { blanks: Object.fromEntries(entries) as Record<string, unknown> };
		}
		case 'matching': {
			const left = new Map(question.left.map((one) => [one.identifier, plainText(one.text)]));
			const right = new Map(question.right.map((one) => [one.identifier, plainText(one.text)]));
			const pairs = question.pairs.filter((pair) => pair.credit > 0);
			const used = new Set(pairs.map((pair) => pair.right));
			const distractors = question.right.filter((one) => !used.has(one.identifier));
			return {
				pairs: pairs.map((pair) => [left.get(pair.left), right.get(pair.right)]),
				...(distractors.length ? { distractors: distractors.map((one) => plainText(one.text)) } : {}),
				shuffle: question.shuffle
			};
		}
		case 'ordering':
			return { order: question.items.map((item) => plainText(item.text)), shuffle: question.shuffle };
		case 'hotspot':
			return { picture: question.picture, shapes: question.shapes };
		case 'label-image':
			return {
				picture: question.picture,
				labels: question.labels.map((label) => plainText(label.text)),
				pairs: question.pairs.filter((pair) => pair.credit > 0).map((pair) => [pair.left, pair.right])
			};
		case 'calculated':
			return { variables: question.variables, expression: question.expression, tolerance: question.tolerance };
		default:
			return {};
	}
}

function plainBlank(blank: Blank, word: Map<string, string>): Record<string, unknown> {
	if (blank.form === 'text') return { accepted: blank.accepted.map((one) => one.text) };
	if (blank.form === 'number') return { accepted: blank.accepted.map(acceptedNumberText) };
	if (blank.form === 'word')
		return {
			accepted: blank.words.filter((one) => one.credit > 0).map((one) => word.get(one.word)),
			options: [...word.values()]
		};
	if (blank.form === 'open') return {};
	return {
		accepted: blank.entries.filter((one) => one.credit > 0).map((one) => plainText(one.text)),
		options: blank.entries.map((one) => plainText(one.text))
	};
}

/** A quiz in the plain form. */
export function plainQuiz(quiz: FoundQuiz): Record<string, unknown> {
	return {
		title: quiz.title,
		parts: quiz.parts.map((part) => ({
			title: part.title,
			...(part.draw === null ? {} : { draw: part.draw }),
			from: part.questions.length,
			...(part.pointsEach === null ? {} : { pointsEach: part.pointsEach }),
			...(part.shuffle === null ? {} : { shuffle: part.shuffle })
		}))
	};
}

/** What a question is called in messages: its title, or the beginning of its stem. */
export function nameOf(question: Question): string {
	return question.title || beginning(plainText(question.stem), 80);
}
