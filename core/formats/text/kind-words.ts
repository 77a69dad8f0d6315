import type { Draft } from '../drafts/draft';
import { kindOfWord } from '../drafts/words';

/** A line that only says of which kind a question is, often in brackets. */
export const kindLine =
	/^[[(<]?\s*(essay|short answer|numeric|numerical|matching|true\s*[/|]?\s*(?:or)?\s*false|t\s*\/\s*f|multiple choice|multiple response|file upload|ordering|fill in the blanks?|information)(?:\s+question)?\s*[\])>]?\s*:?$/i;
/** The kind in front of the stem: "Short answer: Name …". A stem that says "True or false:" keeps it, since students read it. */
export const kindLabel =
	/^(essay|short answer|numeric(?:al)?|matching|multiple choice|multiple (?:response|answers?|select)|file upload|ordering)(?:\s+question)?\s*(?::|\s[-–—])\s+(?=\S)/i;

/** The kind that such words mean. */
export const kindOf = (word: string): Draft['kind'] => (/^t/i.test(word) ? 'true-false' : kindOfWord(word));
