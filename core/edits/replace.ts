import { boolean, string } from 'yup';
import { mapMarkup } from '../kinds';
import type { Markup } from '../model/question';
import { escapeText } from '../xml/serialise';
import { parseXml } from '../xml/parse';
import { textOf } from '../xml/tree';
import type { Edit } from './edit';

/** What is looked for and what is put in its place. */
export interface Replacement {
	find: string;
	put: string;
	/** Capitals and small letters are two things. */
	exactCase: boolean;
	/** Only where it stands as a word of its own. */
	wholeWords: boolean;
}

function patternOf({ find, exactCase, wholeWords }: Replacement): RegExp {
	const words = find.replace(/[.*+?^${}()|[\]\\]/g, '\\$&').replace(/\s+/g, '\\s+');
	const [before, after] = wholeWords ? ['(?<![\\p{L}\\p{N}_])', '(?![\\p{L}\\p{N}_])'] : ['', ''];
	return new RegExp(`${before}${words}${after}`, exactCase ? 'gu' : 'giu');
}

/** The text between two marks, as it reads; marked text is well-formed, so that each piece of it is. */
const asRead = (piece: string) => (piece.includes('&') ? textOf(parseXml(`<t>${piece}</t>`).root ?? undefined) : piece);

function inMarkup(markup: Markup, pattern: RegExp, put: string): Markup {
	return markup
		.split(/(<[^>]*>)/)
		.map((piece, at) => {
			if (at % 2 === 1 || !piece) return piece;
			const text = asRead(piece);
			const replaced = text.replace(pattern, () => put);
			return replaced === text ? piece : escapeText(replaced);
		})
		.join('');
}

/** Replaces words in all that a student reads: stem, options, feedback, hints. Accepted answers and the title stay as they are. */
export const replace: Edit<Replacement> = {
	fields: {
		find: string().min(1, 'Write what to look for.').max(500).required('Write what to look for.'),
		put: string().max(2000).defined(),
		exactCase: boolean().default(false),
		wholeWords: boolean().default(false)
	},
	deed: 'replaced words in',
	says: ({ find, put }) => `“${find}” by “${put}”`,
	apply: (question, what) => {
		const pattern = patternOf(what);
		let changed = false;
		const next = mapMarkup(question, (markup) => {
			const replaced = inMarkup(markup, pattern, what.put);
			changed ||= replaced !== markup;
			return replaced;
		});
		return changed ? next : question;
	},
	keepsKey: false
};
