import { kindName, type Kind } from '$core/kinds';
import type { Total } from '$core/draws/sheets/totals';
import type { FiguresLook, ValueLook } from '$lib/server/quizzes/look';
import { percentOf } from '$lib/ui/percent';
import { count } from '$lib/ui/words';

/** What questions are spread over. */
export type Over = 'categories' | 'kinds' | 'tags';

/** A chance with this error, as words behind it; nothing where it is exact. */
export const errorText = (of: number): string => (of ? ` ± ${(Math.ceil(of * 1000) / 10).toLocaleString('en')} %` : '');

/** To a tenth. */
export const tenth = (value: number): string => (Math.round(value * 10) / 10).toLocaleString('en');

/** How many different sittings there are, as people say it. */
export function sittingsText(text: string): string {
	if (text.length <= 9) return Number(text).toLocaleString('en');
	if (text.startsWith('10^')) return `about ${text.replace('10^', '10 to the power of ')}`;
	return `${text[0]}.${text[1]} × 10 to the power of ${text.length - 1}`;
}

/** How many questions of a value a sitting has on average. */
export const meanOf = ({ chances }: ValueLook): number => chances.reduce((sum, chance, at) => sum + chance * at, 0);

/** How many of it every sitting has. */
export const sureOf = ({ chances }: ValueLook): number =>
	Math.max(
		0,
		chances.findIndex((chance) => chance > 1e-9)
	);

/** How many students see a question, of those that can come. */
export const chanceText = ({ chance }: FiguresLook): string =>
	chance.least === chance.most ? percentOf(chance.most) : `${percentOf(chance.least)} to ${percentOf(chance.most)}`;

/** The number of questions that a pair of students in ten shares, or more. */
export const oftenOf = ({ overlap }: FiguresLook): number => overlap.atLeast.findLastIndex((chance) => chance >= 0.1);

/** How long all questions of a sitting take to be read, rounded to halves of a minute. */
export function timeText({ least, most, mean }: Total): string {
	const half = (seconds: number) => Math.max(0.5, Math.round(seconds / 30) / 2);
	const minutes = (seconds: number) => count(half(seconds), 'minute');
	return half(least) === half(most)
		? `about ${minutes(mean)}`
		: `about ${half(least).toLocaleString('en')} to ${minutes(most)}`;
}

/** Whether all categories of the figures stand in one bank, which need not be named then. */
export const isOneBank = ({ categories }: FiguresLook): boolean =>
	new Set(categories.map(({ path }) => path[0])).size === 1;

/** The values that questions are spread over; the bank itself is none where there is one alone. */
export const valuesOver = (figures: FiguresLook, over: Over): ValueLook[] =>
	over === 'categories' && isOneBank(figures)
		? figures.categories.filter(({ path }) => path.length > 1)
		: figures[over];

/** What a value is called. */
export function valueName({ path }: ValueLook, over: Over): string {
	if (over === 'kinds') return kindName(path[0] as Kind);
	return over === 'tags' ? path[0]! : path.at(-1)!;
}

/** How hard the questions of a sitting are on average, for the luckiest and the unluckiest student. */
export function difficultyText({ least, most, mean }: Total): string {
	const hundredth = (value: number) => (Math.round(value * 100) / 100).toLocaleString('en');
	if (hundredth(least) === hundredth(most)) return `${hundredth(mean)} on average, the same for all`;
	return `${hundredth(mean)} on average, ${hundredth(least)} to ${hundredth(most)} by student`;
}
