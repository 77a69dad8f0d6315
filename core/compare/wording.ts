import { plainText } from '../markup/text';
import type { AcceptedNumber, Kind, Question, Shape } from '../model/question';

/** What a kind of question asks and offers beside its stem, as rich text or plain. */
type Wording<Of extends Kind> = (question: Extract<Question, { kind: Of }>) => string[];

const texts = (list: { text: string }[]) => list.map((one) => one.text);
const figures = (list: AcceptedNumber[]) =>
	list.map((one) => ('value' in one ? String(one.value) : `${one.min} ${one.max}`));
const places = (shapes: Shape[]) => shapes.map(({ shape, coordinates }) => `${shape} ${coordinates.join(' ')}`);
/** Of what could not be read so much is compared. */
const mostOfSource = 20_000;

const wordings: { [Of in Kind]: Wording<Of> } = {
	'true-false': ({ options }) => texts(options),
	'multiple-choice': ({ options }) => texts(options),
	'multiple-response': ({ options }) => texts(options),
	'short-answer': ({ accepted }) => texts(accepted),
	numeric: ({ accepted }) => figures(accepted),
	'fill-blanks': ({ blanks, bank }) => [
		...texts(bank),
		...blanks.flatMap((blank) => {
			if (blank.form === 'text') return texts(blank.accepted);
			if (blank.form === 'number') return figures(blank.accepted);
			return blank.form === 'list' ? texts(blank.entries) : [];
		})
	],
	matching: ({ left, right }) => texts([...left, ...right]),
	ordering: ({ items }) => texts(items),
	essay: () => [],
	'file-upload': () => [],
	hotspot: ({ picture, shapes }) => [picture.name, picture.alt, ...places(shapes)],
	'label-image': ({ picture, labels, targets }) => [picture.name, picture.alt, ...texts(labels), ...places(targets)],
	calculated: ({ expression, variables }) => [
		expression,
		...variables.map(({ name, values }) =>
			values.form === 'range'
				? `${name} ${values.min} ${values.max}`
				: `${name} ${values.form === 'set' ? values.values.join(' ') : values.expression}`
		)
	],
	information: () => [],
	unreadable: ({ fragment }) => [fragment.slice(0, mostOfSource)]
};

/**
 * All that a question asks and offers, as plain text, with a word for each of its files: what its likeness to another is
 * judged by. Two questions that ask the same of other pictures, numbers or labels are not the same.
 */
export function wordingOf(question: Question): string {
	const own = wordings[question.kind] as Wording<Kind>;
	const files = question.attachments.map(({ hash, name }) => hash ?? name);
	return [question.stem, ...own(question)].map(plainText).concat(files).join(' ');
}
