import { displayMarkup } from '$core/markup/display';
import type { Attachment, Markup } from '$core/model/question';

/** Rich text of a question of a course as HTML, with its pictures from the course's files. */
export function rich(markup: Markup, attachments: readonly Attachment[], courseId: number): string {
	return displayMarkup(
		markup,
		attachments,
		(hash, mediaType) => `/courses/${courseId}/files/${hash}?as=${encodeURIComponent(mediaType)}`
	);
}

/** Lights words in an element, without touching its content (CSS Custom Highlight API); where a browser has none, nothing is lit. */
export function light(node: HTMLElement, words: string[]): { update: (words: string[]) => void; destroy: () => void } {
	const draw = (wanted: string[]) => {
		if (!('highlights' in CSS)) return;
		const ranges: Range[] = [];
		const walker = document.createTreeWalker(node, NodeFilter.SHOW_TEXT);
		for (let text = walker.nextNode(); text; text = walker.nextNode())
			for (const word of wanted.filter(Boolean))
				for (let at = text.nodeValue!.indexOf(word); at >= 0; at = text.nodeValue!.indexOf(word, at + word.length)) {
					const range = new Range();
					range.setStart(text, at);
					range.setEnd(text, at + word.length);
					ranges.push(range);
				}
		CSS.highlights.set('snag', new Highlight(...ranges));
	};
	queueMicrotask(() => draw(words));
	return {
		update: (next) => queueMicrotask(() => draw(next)),
		destroy: () => 'highlights' in CSS && CSS.highlights.delete('snag')
	};
}
