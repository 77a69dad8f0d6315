import { languageBySmallWords, smallIn, wordsIn } from '../language/small-words';
import { plainText } from '../markup/text';
import { isChoice, mapMarkup, type Question } from '../kinds';
import type { OneCheck } from './check';

const numbered =
	/^\s*(?:(?:(?:Q|No|Nr|N°)\s*\.?\s*)?(?:\(\d{1,3}\)|\d{1,3}(?:\.\d{1,2})*\s*(?:\.\)|[.):]|\s[–—-](?=\s)))(?:\s+|(?=\p{Lu}\p{Ll}))|#\d{1,3}[.:)]?\s+|(?:I[VX]|V?I{2,3}|VI|XI{1,3})\s*[.)]\s+)(?=\S)/u;
const lettered = /^\s*(?:\([a-zA-Z]\)|[a-z]\))\s+(?=\S)/u;
const upright = /^[\p{Lu}“"«¿¡‘(]/u;
/** What may be a part of a sentence, and is none where a question begins behind it. */
const bare =
	/^\s*(?:\(?\p{Lu}[.)]|(?:Q\s*\.?\s*)?\d{1,3}(?:\.\d{1,2})*|[\u2460-\u2473]|(?:I[VX]|V?I{1,3}|VI{0,3}|XI{0,3}))\s+(?=[¿“"]?(?:What|Which|Who|Whose|When|Where|Why|How|Is|Are|Do|Does|Did|Can|Name|List|Explain|Describe|Define|Welche[mnrs]?|Was|Wann|Wo|Wer|Warum|Wie|Nennen?|Quel(?:le)?s?|Qui|Quand|Où|Comment|Pourquoi|Combien|Cuál(?:es)?|Qué|Quién(?:es)?|Dónde|Cuándo|Cómo|Cuánt[ao]s?|Por qu[eé]|Qual|Quais|Quem|Onde|Quando|Como|Quant[aoie]s?|Quale|Quali|Che|Chi|Dove|Perché|Welke?|Wat|Waar|Wanneer|Waarom|Hoe)(?!\p{L}))/u;

/** The number or letter that is typed in front of a stem; null where it is a part of its first sentence. */
function numberOf(stem: string): string | null {
	const first = firstOf(stem);
	if (first === null) return null;
	// “1) a) Which …”: one stands behind the other
	const next = firstOf(stem.slice(stem.indexOf(first) + first.length));
	return next === null
		? first
		: stem.slice(stem.indexOf(first), stem.indexOf(next, stem.indexOf(first) + first.length) + next.length);
}

/** The first number or letter that is typed in front of a stem; null where it is a part of its first sentence. */
function firstOf(stem: string): string | null {
	const found = numbered.exec(stem) ?? lettered.exec(stem) ?? bare.exec(stem);
	if (!found) return null;
	const rest = stem.slice(found[0].length);
	if (lettered.test(rest) || numbered.test(rest)) return found[0].trim();
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

/** A stem without the numbers and letters that are typed in front of it. */
function unnumbered(stem: string): string {
	if (numberOf(plainText(stem)) === null) return stem;
	const pattern = [numbered, lettered, bare].find((typed) => typed.test(plainText(stem)))!;
	const less = stem.replace(inMarkup(pattern), '$1');
	return less === stem ? stem : unnumbered(less);
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
	const found = styles.find((style) => style !== 'roman' && count(style) > 1 && count(style) * 2 >= texts.length);
	if (!found) return null;
	// “1. Offizier, 2. Offizier, Kapitän”: what tells two options apart is a part of them
	const bare = texts.map((text, at) => text.replace(labelled(found, at), '').trim().toLowerCase());
	return new Set(bare).size < new Set(texts.map((text) => text.trim().toLowerCase())).size ? null : found;
}

/** A number is typed into the stem, or letters into the options. */
export const typedNumbering: OneCheck = {
	id: 'typed-numbering',
	version: 4,
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
			const bare = mapMarkup(question, (markup, field) => (field === 'stem' ? unnumbered(markup) : markup));
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
