import { array, boolean, number, object, string, type InferType } from 'yup';
import { keyIn } from '../requests';
import { filtersIn, type FilterName, type Filters } from './conditions';

/** The longest search, in letters. */
const mostWords = 500;

/** In which order the questions of a bank can be listed: as they stand in the tree, or by a column. */
export const sortings = [
	'tree',
	'title',
	'stem',
	'kind',
	'points',
	'tags',
	'difficulty',
	'language',
	'key',
	'used',
	'created',
	'changed',
	'by',
	'load',
	'snags'
] as const;

/** One of those. */
export type Sorting = (typeof sortings)[number];

/** What questions are looked for, and in which order. */
export interface QuestionFilter {
	bankId: number;
	categoryId: number | null;
	withUnder: boolean;
	words: string;
	/** What else they have to be. */
	filters: Filters;
	sort: Sorting;
	/** From the greatest to the least. */
	down: boolean;
}

const sortingOf = (text: string | null): Sorting => sortings.find((sorting) => sorting === text) ?? 'tree';

/** What an address asks for of a bank. */
export function filterIn(url: URL, bankId: number): QuestionFilter {
	const { searchParams: asked } = url;
	return {
		bankId,
		categoryId: keyIn(url, 'category'),
		withUnder: asked.get('under') !== '0',
		words: (asked.get('words') ?? '').slice(0, mostWords),
		filters: filtersIn((name) => asked.get(name)),
		sort: sortingOf(asked.get('sort')),
		down: asked.get('down') === '1'
	};
}

const key = number().integer().min(1).max(Number.MAX_SAFE_INTEGER);

/** Which questions of a bank are meant: some by their keys, or all that a filter finds, but for some. */
export const chosenShape = object({
	ids: array(key.required()).max(20_000, 'So many are chosen by a filter.').default(undefined),
	bankId: key.required('The bank is not named.'),
	categoryId: key.nullable().default(null),
	withUnder: boolean().default(true),
	words: string().max(mostWords).default(''),
	filters: object().default({}),
	except: array(key.required()).max(20_000).default([])
});

/** Which questions of a bank are meant. */
export type Chosen = InferType<typeof chosenShape>;

/** The filter of what is chosen by one. */
export function filterOf({ bankId, categoryId, withUnder, words, filters }: Chosen): QuestionFilter {
	const given = new Map(Object.entries(filters));
	return {
		bankId,
		categoryId,
		withUnder,
		words,
		filters: filtersIn((name: FilterName) => {
			const text = given.get(name);
			return typeof text === 'string' ? text : null;
		}),
		sort: 'tree',
		down: false
	};
}

/**
 * The name by which a list is remembered: what is asked for, in that state of the course. Null where it cannot be: where
 * the state is not known, or the list goes by what quizzes name, of which it does not always tell.
 */
export function nameOf(state: string | undefined, filter: QuestionFilter, more = 0): string | null {
	const goesByUse = filter.filters.used !== undefined || filter.sort === 'used';
	return state === undefined || goesByUse ? null : JSON.stringify([state, filter, more]);
}
