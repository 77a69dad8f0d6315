import { languageBySmallWords, smallIn, wordsIn } from '../language/small-words';
import { plainText } from '../markup/text';
import { isChoice, mapMarkup, type Question } from '../kinds';
import type { OneCheck } from './check';

const numbered =
	/^\s*(?:(?:(?:Q|No|Nr|N°)\s*\.?\s*)?(?:\(\d{1,3}\)|\d{1,3}(?:\.\d{1,2})*\s*(?:\.\)|[.):]|\s[–—-](?=\s)))(?:\s+|(?=\p{Lu}\p{Ll}))|#\d{1,3}[.:)]?\s+|(?:I[VX]|V?I{2,3}|VI|XI{1,3})\s*[.)]\s+)(?=\S)/u;
const lettered = /^\s*(?:\([a-zA-Z]\)|[a-z]\))\s+(?=\S)/u;
const upright = /^[\p{Lu}“"«¿¡‘(]/u;

/** The number or letter that is typed in front of a stem; null where it is a part of its first sentence. */
function numberOf(stem: string): string | null {
	const found = numbered.exec(stem) ?? lettered.exec(stem);
	if (!found) return null;
	const rest = stem.slice(found[0].length);
	if (!upright.test(rest)) return null;
	const [first = ''] = wordsIn(rest);
	const language = languageBySmallWords(wordsIn(rest));
	// “2. Offizier” is the second of them: an ordinal of German is written with a stop, and a noun with a capital
	if (
		language === 'de' &&
		/(?:\d|[IVX])\s*\.\s*$/.test(found[0]) &&
		!smallIn([first], 'de') &&
		!/n(?:en|e)?$/u.test(first)
	)
		return null;
	return found[0].trim();
}

const romans = ['i', 'ii', 'iii', 'iv', 'v', 'vi', 'vii', 'viii', 'ix', 'x', 'xi', 'xii'];
const labelsOf = (at: number): Record<'upper' | 'lower' | 'figure' | 'roman', string> => ({
	upper: String.fromCharCode(65 + (at % 26)),
	lower: String.fromCharCode(97 + (at % 26)),
	figure: String(at + 1),
	roman: `(?:${romans[at] ?? 'x'}|${(romans[at] ?? 'x').toUpperCase()})`
});
type Style = keyof ReturnType<typeof labelsOf>;
const styles: Style[] = ['upper', 'lower', 'figure', 'roman'];
const labelled = (style: Style, at: number) => {
	const label = labelsOf(at)[style];
	return new RegExp(
		`^\\s*(?:(?:[([]${label}[)\\]]|${label}\\s*[.):]|${label}\\s*[–—-](?=\\s))\\s+(?=\\S)|${label}[.)](?=\\p{L}{2}))`,
		'u'
	);
};
/** The same within rich text: behind the tags that it begins with. */
const inMarkup = (pattern: RegExp) =>
	new RegExp(`^((?:\\s|<[^>]+>)*)${pattern.source.replace(/^\^\\s\*/, '')}`, pattern.flags);

/** In which style the options begin with their own letter or number; null where too few do, as a word may. */
function styleOf(question: Question): Style | null {
	if (!isChoice(question)) return null;
	const texts = question.options.map(({ text }) => plainText(text));
	const count = (style: Style) => texts.filter((text, at) => labelled(style, at).test(text)).length;
	if (texts.length > 1 && count('roman') === texts.length) return 'roman';
	// “A. Smith, B. Jones, R. Miller”: initials that stand in the order of letters by chance
	const isInitial = (text: string, at: number) => /^\s*\p{Lu}\.\s/u.test(text) && !labelled('upper', at).test(text);
	if (texts.some(isInitial)) return null;
	return styles.find((style) => style !== 'roman' && count(style) > 1 && count(style) * 2 >= texts.length) ?? null;
}

/** A number is typed into the stem, or letters into the options. */
export const typedNumbering: OneCheck = {
	id: 'typed-numbering',
	version: 3,
	scope: 'one',
	title: 'Number or letter typed into the text',
	short: 'numbering',
	severity: 'untidy',
	why: 'Numbers and letters are put in front when the question is shown. Typed into the text they stand there twice, and are wrong once the order changes.',
	find(question) {
		if (question.kind === 'unreadable') return [];
		const stem = numberOf(plainText(question.stem));
		const style = styleOf(question);
		const options =
			style && isChoice(question)
				? question.options.map(({ text }) => plainText(text)).filter((text, at) => labelled(style, at).test(text))
				: [];
		const says = [
			...(stem ? [`The stem begins with the number “${stem}”.`] : []),
			...(options.length
				? [`${options.map((text) => `“${text}”`).join(', ')} begin with a letter or number of their own.`]
				: [])
		];
		return says.length
			? [{ message: `${says.join(' ')} Take it out.`, words: [...(stem ? [stem] : []), ...options] }]
			: [];
	},
	mend: {
		title: 'Take numbers and letters out of the text',
		apply(question) {
			const stem = question.kind === 'unreadable' ? null : numberOf(plainText(question.stem));
			const pattern = inMarkup(numbered.test(plainText(question.stem)) ? numbered : lettered);
			const bare = stem
				? mapMarkup(question, (markup, field) => (field === 'stem' ? markup.replace(pattern, '$1') : markup))
				: question;
			const style = styleOf(question);
			if (!style || !isChoice(bare)) return bare;
			return {
				...bare,
				options: bare.options.map((option, at) =>
					labelled(style, at).test(plainText(option.text))
						? { ...option, text: option.text.replace(inMarkup(labelled(style, at)), '$1') }
						: option
				)
			};
		}
	}
};
