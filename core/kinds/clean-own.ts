import { mapMarkup, type Question } from '.';
import { parseXml } from '../xml/parse';
import { markupOfHtml, markupOfNodes } from '../markup/clean';

/**
 * A question whose rich text anybody may have written, with all of it cleaned: what can do harm is gone and noted in
 * `removed`, and what is no well-formed markup is read as HTML.
 */
export function cleanOwn(question: Question): Question {
	const removed = new Set(question.removed);
	const context = {
		ours: true,
		media: (address: string) => address.replace(/^media:/, ''),
		removed: (what: string) => void removed.add(what)
	};
	const cleaned = mapMarkup(question, (markup) => {
		if (!markup) return markup;
		const { root } = parseXml(`<x>${markup}</x>`);
		return root
			? markupOfNodes(root.children, { ...context, media: (address) => address })
			: markupOfHtml(markup, context);
	});
	return { ...cleaned, removed: [...removed] };
}
