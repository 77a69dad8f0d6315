import { fold } from '../markup/text';
import type { Question } from '../kinds';
import type { AcceptedText } from '../model/pieces';
import type { OneCheck } from './check';
import { quoted } from './saying';

const isPlain = ({ match }: AcceptedText) => match !== 'pattern';
const isBlanked = (entry: AcceptedText) => isPlain(entry) && entry.text !== fold(entry.text);
const caseless = (entry: AcceptedText) => `${entry.match ?? ''} ${fold(entry.text).toLowerCase()}`;

/** The texts that say the same as one before them, since neither case nor blanks count. */
function repeated(accepted: readonly AcceptedText[]): AcceptedText[] {
	const first = new Map<string, AcceptedText>();
	return accepted.filter((entry) => {
		if (!isPlain(entry) || entry.caseSensitive) return false;
		const before = first.get(caseless(entry));
		if (!before) first.set(caseless(entry), entry);
		return before !== undefined && before.text !== entry.text;
	});
}

const textsIn = (question: Question): AcceptedText[][] =>
	question.kind === 'short-answer'
		? [question.accepted]
		: question.kind === 'fill-blanks'
			? question.blanks.flatMap((blank) => (blank.form === 'text' ? [blank.accepted] : []))
			: [];

/** Folded, and each once: what is left of two earns what the better of them earned. */
function tidied(accepted: AcceptedText[]): AcceptedText[] {
	const gone = new Set(repeated(accepted));
	return accepted
		.filter((entry) => !gone.has(entry))
		.map((entry) => {
			if (!isPlain(entry)) return entry;
			const alike = entry.caseSensitive
				? [entry]
				: accepted.filter((other) => isPlain(other) && !other.caseSensitive && caseless(other) === caseless(entry));
			return { ...entry, text: fold(entry.text), credit: Math.max(...alike.map(({ credit }) => credit)) };
		});
}

/** Accepted texts with blanks that nobody types, or written several times for nothing. */
export const answerBlanks: OneCheck = {
	id: 'answer-blanks',
	version: 1,
	scope: 'one',
	title: 'Accepted texts with stray blanks or needless spellings',
	short: 'blanks',
	severity: 'doubtful',
	why: 'Some systems hold an answer against the accepted text to the letter, and a blank that nobody sees makes a right answer wrong; spellings in capitals are written twice for nothing.',
	find(question) {
		const texts = textsIn(question);
		const blanked = texts
			.flat()
			.filter(isBlanked)
			.map(({ text }) => text);
		const twice = texts
			.flatMap(repeated)
			.filter((entry) => !isBlanked(entry))
			.map(({ text }) => text);
		const says = [
			...(blanked.length
				? [`${quoted(blanked)} ${blanked.length > 1 ? 'have' : 'has'} blanks at an end or double ones.`]
				: []),
			...(twice.length
				? [
						`${quoted(twice)} ${twice.length > 1 ? 'differ' : 'differs'} from another accepted text in capitals alone, which do not count.`
					]
				: [])
		];
		return says.length ? [{ message: `${says.join(' ')} Tidy them up.`, words: [...blanked, ...twice] }] : [];
	},
	mend: {
		title: 'Take out the blanks and the needless spellings',
		apply(question) {
			if (question.kind === 'short-answer') return { ...question, accepted: tidied(question.accepted) };
			if (question.kind !== 'fill-blanks') return question;
			return {
				...question,
				blanks: question.blanks.map((blank) =>
					blank.form === 'text' ? { ...blank, accepted: tidied(blank.accepted) } : blank
				)
			};
		}
	}
};
