import type { Markup } from '../../../model/question';

import { languageTag } from './changing';
import type { Feature } from './feature';

/** A text that several questions share. */
export const stimulus: Feature = {
	name: 'stimulus',
	title: 'a text that several questions share',
	otherwise: 'the shared text is put in front of the stem',
	without: (question) => {
		if (!question.stimulus) return question;
		const { stimulus, ...rest } = question;
		const paragraph = (markup: Markup) =>
			/^<(p|div|table|ul|ol|h\d|blockquote|pre|dl)\b/.test(markup) ? markup : `<p>${markup}</p>`;
		const stem = rest.stem ? `${paragraph(stimulus.content)}${paragraph(rest.stem)}` : stimulus.content;
		return { ...rest, stem };
	}
};

/** Hints. */
export const hints: Feature = {
	name: 'hints',
	title: 'hints',
	otherwise: 'hints are left out',
	without: (question) => (question.hints.length ? { ...question, hints: [] } : question)
};

/** Extra metadata. */
export const metadata: Feature = {
	name: 'metadata',
	title: 'extra metadata',
	otherwise: 'extra metadata is left out',
	without: (question) => (question.metadata.length ? { ...question, metadata: [] } : question)
};

/** Difficulty. */
export const difficulty: Feature = {
	name: 'difficulty',
	title: 'difficulty',
	otherwise: 'the difficulty is left out',
	without: (question) => {
		if (question.difficulty === undefined) return question;
		const { difficulty: _, ...rest } = question;
		return rest;
	}
};

/** Tags. */
export const tags: Feature = {
	name: 'tags',
	title: 'tags',
	otherwise: 'tags are left out',
	without: (question) => (question.tags.length ? { ...question, tags: [] } : question)
};

/** A language that is no language tag. */
export const oddLanguage: Feature = {
	name: 'odd-language',
	title: 'a language that is no language tag',
	otherwise: 'the language is left out: its name is no language tag',
	without: (question) =>
		question.language === null || languageTag.test(question.language) ? question : { ...question, language: null }
};

/** Language. */
export const language: Feature = {
	name: 'language',
	title: 'language',
	otherwise: 'the language is left out',
	without: (question) => (question.language === null ? question : { ...question, language: null })
};

/** Category. */
export const category: Feature = {
	name: 'category',
	title: 'category',
	otherwise: 'the category is left out',
	without: (question) => (question.category.length ? { ...question, category: [] } : question)
};

/** Title. */
export const title: Feature = {
	name: 'title',
	title: 'title',
	otherwise: 'the title is left out',
	without: (question) => (question.title ? { ...question, title: '' } : question)
};
