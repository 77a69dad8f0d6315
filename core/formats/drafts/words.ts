import { kinds, type Kind } from '../../kinds';

/** Words for kinds as people write them, by the beginning of what is left of them without blanks and dashes. */
const kindWords: [RegExp, Kind][] = [
	[/^(tf|t\/f|truefalse|true\/false|trueorfalse|yesno|yes\/no|boolean|bool)$/, 'true-false'],
	[
		/^(mc|mcq|scq|mchoice|multiplechoice(?:single(?:answer|choice|correct|select)?)?|single|singlechoice|singleanswer|choice|one|sc|radio|bestanswer|select|selectone)$/,
		'multiple-choice'
	],
	[
		/^(mr|mrq|ma|multi|multiple|many|multipleresponse|multipleresponses|msq|maq|mmcq|multipleanswers?|multiplecorrect|multi(?:ple)?select|multiplechoicemultiple(?:answers?|correct|select)?|checkbox(es)?|selectall|severalanswers)$/,
		'multiple-response'
	],
	[
		/^(sa|short|shortanswer|shorttext|word|text|textanswer|fill|fillin|fillin(?:the)?blanks?|fib|identification|openshort|term)$/,
		'short-answer'
	],
	[/^(num|number|numeric|numerical|numericanswer|integer|decimal|value)$/, 'numeric'],
	[/^(match|matching|pairs|pair|matchpairs)$/, 'matching'],
	[/^(order|ordering|sequence|sequencing|rank|ranking|sort)$/, 'ordering'],
	[/^(essay|open|openended|longanswer|long|longtext|freetext|free|discussion|talk|written|paragraph)$/, 'essay'],
	[/^(file|upload|fileupload|attachment|handin)$/, 'file-upload'],
	[/^(info|information|description|instruction|instructions|note|textonly)$/, 'information']
];

/** Our kind for a word of a file, or null where the word is none that is known. */
export function kindOfWord(word: string): Kind | null {
	const plain = word.toLowerCase().trim();
	if ((kinds as readonly string[]).includes(plain)) return plain as Kind;
	const bare = plain.replace(/questions?$/, '').replace(/[\s_.()-]+/g, '');
	return kindWords.find(([pattern]) => pattern.test(bare))?.[1] ?? null;
}

/**
 * What the words of a file for kinds mean where they explain one another: beside a word for a single choice, “multiple
 * choice” is one of several. Undefined where they do not.
 */
export function kindsTogether(given: string[]): Record<string, string> | undefined {
	const bare = (word: string) => word.toLowerCase().replace(/[^a-z]/g, '');
	if (!given.some((word) => /^single/.test(bare(word)))) return undefined;
	const several = given.filter((word) => /^multiplechoice(?:questions?)?$/.test(bare(word)));
	return several.length ? Object.fromEntries(several.map((word) => [word, 'multiple-response'])) : undefined;
}

const trueWords = /^(t|true|yes|y|right|correct|1|wahr|richtig|vrai|ja|verdadero|cierto|vero|waar|verdadeiro)$/i;
const falseWords = /^(f|false|no|n|wrong|incorrect|0|falsch|faux|nein|falso|onwaar|niet waar)$/i;

/** Whether a text is a usual word for true or for false; null where it is neither. Digits count only where `digits` says so. */
export function truthOf(text: string, digits = false): boolean | null {
	const plain = text.trim().replace(/[.!]$/, '');
	if (/^[01]$/.test(plain) && !digits) return null;
	return trueWords.test(plain) ? true : falseWords.test(plain) ? false : null;
}
