import { kindOf, type Question } from '../kinds';
import { wordsIn } from '../language/small-words';
import { plainText } from '../markup/text';
import { overMany } from './check';
import { countOf } from './key-place';

const fewestWords = 8;
/** The beginning says in which language a text is written. */
const mostLetters = 400;
const share = 0.9;
const fewest = 10;

interface Note {
	/** In which languages it may be written, the likeliest first. */
	languages: string[];
}

const names = new Intl.DisplayNames(['en'], { type: 'language' });
const nameOf = (language: string) => names.of(language) ?? language;

/** The words of a question, without code and formulas. */
function textOf(question: Question): string {
	const bare = (markup: string) => plainText(markup.replace(/<(code|pre|math|kbd|samp)\b[\s\S]*?<\/\1>/g, ' '));
	return [question.stem, ...kindOf(question).wording(question)].map(bare).join(' ');
}

/** A question is in another language than its bank. */
export const otherLanguage = overMany<Note>({
	id: 'other-language',
	version: 1,
	scope: 'many',
	title: 'In another language than its bank',
	short: 'language',
	severity: 'doubtful',
	why: 'Students who get it may not understand it. Mostly it was not translated, or came from another bank.',
	within: 'bank',
	tallied: true,
	note(question, { languagesOf }) {
		if (question.kind === 'unreadable') return null;
		const text = textOf(question);
		if (wordsIn(text).filter((word) => /\p{L}{2}/u.test(word)).length < fewestWords) return null;
		const languages = [...languagesOf(text.slice(0, mostLetters))].slice(0, 3);
		return languages.length ? { languages } : null;
	},
	among(noted) {
		const all = countOf(noted);
		if (all < fewest) return [];
		const by = new Map<string, number>();
		for (const { note, times = 1 } of noted) by.set(note.languages[0]!, (by.get(note.languages[0]!) ?? 0) + times);
		const [most] = [...by].sort((a, b) => b[1] - a[1]);
		if (!most || most[1] < share * all - 1e-9) return [];
		return noted
			.filter(({ note }) => !note.languages.includes(most[0]))
			.map(({ id, note }) => ({
				id,
				message: `It is written in ${nameOf(note.languages[0]!)}, and ${most[1]} of ${all} questions of this bank in ${nameOf(most[0])}. Translate it, or move it to where it belongs.`
			}));
	}
});
