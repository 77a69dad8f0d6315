import { blanksIn } from '../../../markup/markers';
import { mapMarkup } from '../../../kinds';

import { withoutPictures, plain } from './changing';
import type { Feature } from './feature';

/** Pictures, sound and files. */
export const pictures: Feature = {
	name: 'pictures',
	title: 'pictures, sound and files',
	otherwise: 'pictures, sound and files are left out; where nothing else stood there, their names stand in for them',
	without: (question) => {
		const bare = mapMarkup(question, withoutPictures);
		return question.attachments.length || JSON.stringify(bare) !== JSON.stringify(question)
			? { ...bare, attachments: [] }
			: question;
	}
};

/** Rich text. */
export const richText: Feature = {
	name: 'rich-text',
	title: 'rich text',
	otherwise: 'rich text becomes plain text',
	without: (question) => {
		let same = true;
		const blanks = new Set(blanksIn(question.stem));
		const bare = mapMarkup(question, (markup, field) => {
			const text = field === 'stem' && blanks.size ? markup : plain(markup);
			if (text !== markup) same = false;
			return text;
		});
		return same ? question : bare;
	}
};

/** Several lines. */
export const lineBreaks: Feature = {
	name: 'line-breaks',
	title: 'several lines',
	otherwise: 'white space is folded',
	without: (question) => {
		let same = true;
		const folded = mapMarkup(question, (markup) => {
			const text = markup.replace(/\s+/g, ' ').trim();
			if (text !== markup) same = false;
			return text;
		});
		const title = question.title.replace(/\s+/g, ' ').trim();
		return same && title === question.title ? question : { ...folded, title };
	}
};
