import { serialise } from '../../../xml/serialise';
import { blankMarker, replaceBlanks } from '../../../markup/markers';
import { type Blank, type Question } from '../../../kinds';

import { onBlanks, changed, plain, tidyMarkup } from './changing';
import type { Feature } from './feature';

/** A word bank beside blanks of other forms. */
export const mixedBank: Feature = {
	name: 'mixed-bank',
	title: 'a word bank beside blanks of other forms',
	otherwise: 'blanks with a shared word bank become lists of their own',
	without: (question) =>
		question.kind === 'fill-blanks' &&
		question.blanks.some((blank) => blank.form === 'word') &&
		question.blanks.some((blank) => blank.form !== 'word')
			? withoutBank(question)
			: question
};

/** A word bank that blanks share. */
export const wordBank: Feature = {
	name: 'word-bank',
	title: 'a word bank that blanks share',
	otherwise: 'blanks with a shared word bank become lists of their own',
	without: (question) =>
		question.kind === 'fill-blanks' && (question.bank.length || question.blanks.some((blank) => blank.form === 'word'))
			? withoutBank(question)
			: question
};

/** Rich text in a word bank. */
export const richBank: Feature = {
	name: 'rich-bank',
	title: 'rich text in a word bank',
	otherwise: 'rich text of a word bank becomes plain text',
	without: (question) => {
		if (question.kind !== 'fill-blanks') return question;
		const bank = changed(question.bank, (word) =>
			plain(word.text) === word.text ? word : { ...word, text: plain(word.text) }
		);
		return bank === question.bank ? question : { ...question, bank };
	}
};

/** Rich text in the lists of blanks within a line. */
export const richLists: Feature = {
	name: 'rich-lists',
	title: 'rich text in the lists of blanks within a line',
	otherwise: 'rich text in the lists of blanks becomes plain text',
	without: (question) => {
		if (question.kind !== 'fill-blanks') return question;
		const blocks = new Set<string>();
		replaceBlanks(question.stem, (identifier, block) => {
			if (block) blocks.add(identifier);
			return '';
		});
		return onBlanks(question, (blank) => {
			if (blank.form !== 'list' || blocks.has(blank.identifier)) return blank;
			const entries = changed(blank.entries, (entry) =>
				plain(entry.text) === entry.text ? entry : { ...entry, text: plain(entry.text) }
			);
			return entries === blank.entries ? blank : { ...blank, entries };
		});
	}
};

/** A single blank that is filled at length. */
export const loneOpenBlank: Feature = {
	name: 'lone-open-blank',
	title: 'a single blank that is filled at length',
	otherwise: 'a text whose only blank is filled at length becomes an essay',
	without: (question) => {
		if (question.kind !== 'fill-blanks' || question.blanks.length !== 1 || question.blanks[0]!.form !== 'open')
			return question;
		const { blanks: _1, bank: _2, combination: _3, shuffle: _4, kind: _5, ...rest } = question;
		return { ...rest, stem: tidyMarkup(replaceBlanks(rest.stem, (_, block) => (block ? '' : '…'))), kind: 'essay' };
	}
};

/** Long answers within a line. */
export const inlineOpenBlanks: Feature = {
	name: 'inline-open-blanks',
	title: 'long answers within a line',
	otherwise: 'blanks that are filled at length stand in lines of their own',
	without: (question) => {
		if (question.kind !== 'fill-blanks') return question;
		const open = new Set(question.blanks.flatMap((blank) => (blank.form === 'open' ? [blank.identifier] : [])));
		let any = false;
		const stem = replaceBlanks(question.stem, (identifier, block) => {
			const moved = open.has(identifier) && !block;
			any ||= moved;
			return serialise([blankMarker(identifier, block || moved)]);
		});
		return any ? { ...question, stem: tidyMarkup(stem) } : question;
	}
};

/** The words of a shared bank as a list of each blank's own. */
function withoutBank(question: Extract<Question, { kind: 'fill-blanks' }>): Question {
	return {
		...question,
		bank: [],
		shuffle: null,
		blanks: question.blanks.map((blank): Blank => {
			if (blank.form !== 'word') return blank;
			return {
				identifier: blank.identifier,
				share: blank.share,
				form: 'list',
				several: false,
				shuffle: question.shuffle,
				entries: question.bank.map(({ identifier, text }) => ({
					identifier,
					text,
					credit: blank.words.find((one) => one.word === identifier)?.credit ?? 0
				}))
			};
		})
	};
}
