import { eld } from 'eld/extrasmall';
import { knownLanguages, smallIn, wordsIn } from './small-words';

// those that are taught in, and tell each other apart in a sentence; more of them would be taken for one another
eld.setLanguageSubset([
	...knownLanguages,
	...['sv', 'da', 'no', 'fi', 'pl', 'cs', 'hu', 'ro', 'tr', 'ru', 'uk', 'el', 'he', 'ar', 'ja', 'zh', 'ko']
]);

/** Fewer small words than this make no sentence: names and terms stand side by side in any language. */
const fewestSmall = 2;
/** A language whose score comes this near the best may be meant as well. */
const near = 0.8;

/** In which languages a text may be written, the likeliest first; empty where it does not say. */
export function languagesOf(text: string): string[] {
	const found = eld.detect(text);
	const { language } = found;
	if (!language || !found.isReliable()) return [];
	const known = knownLanguages.find((one) => one === language);
	if (known && smallIn(wordsIn(text), known) < fewestSmall) return [];
	const scores = Object.entries(found.getScores()).sort((a, b) => b[1] - a[1]);
	const best = scores[0]![1];
	return scores.filter(([, score]) => score >= near * best).map(([name]) => name);
}
