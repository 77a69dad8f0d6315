import { percentOf } from '../../percent';

/** What an answer earns, in words: "all of it", "50 %". */
export const creditInWords = (credit: number) => (credit >= 1 ? 'all of it' : percentOf(credit));
