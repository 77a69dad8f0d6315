import { keyIn } from '../requests';
import type { QuestionFilter } from './pages';

/** The longest search, in letters. */
const mostWords = 500;

/** What an address asks for of a bank. */
export function filterIn(url: URL, bankId: number): QuestionFilter {
	return {
		bankId,
		categoryId: keyIn(url, 'category'),
		withUnder: url.searchParams.get('under') !== '0',
		words: (url.searchParams.get('words') ?? '').slice(0, mostWords),
		kind: url.searchParams.get('kind') ?? ''
	};
}
