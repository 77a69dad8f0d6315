import { displayMarkup } from '$core/markup/display';
import type { Attachment, Markup } from '$core/model/question';

/** Gives the address of a stored file by its hash and type. */
export type AddressOf = (hash: string, type: string) => string;

/**
 * Rich text for an editor: pictures have their address and carry their name, so that they are found again; blanks,
 * formulas, sounds and films are things of one piece.
 */
export function toEditor(markup: Markup, attachments: Attachment[], addressOf: AddressOf): string {
	const held = document.createElement('div');
	held.innerHTML = displayMarkup(markup, attachments, addressOf);
	const names = [...markup.matchAll(/="media:([^"]*)"/g)].map((found) => found[1]!);
	held
		.querySelectorAll('img, audio, video, a[href^="/courses/"], .not-there')
		.forEach((node, at) => node.setAttribute('data-media', names[at] ?? ''));
	for (const blank of held.querySelectorAll('.blank')) blank.setAttribute('data-blank', blank.id);
	return held.innerHTML;
}

/** An element of an editor as well-formed text without what the editor needs alone. */
export function fromEditor(box: HTMLElement): Markup {
	const held = box.cloneNode(true) as HTMLElement;
	for (const node of held.querySelectorAll('[data-math]')) {
		const math = document.createElement('div');
		math.innerHTML = node.getAttribute('data-math') ?? '';
		node.replaceWith(...math.childNodes);
	}
	for (const node of held.querySelectorAll('[data-media]')) {
		const name = node.getAttribute('data-media') ?? '';
		node.removeAttribute('data-media');
		if (node.tagName === 'IMG') node.setAttribute('src', `media:${name}`);
		else if (node.tagName === 'A') node.setAttribute('href', `media:${name}`);
		else {
			const file = document.createElement('object');
			file.setAttribute('data', `media:${name}`);
			node.replaceWith(file);
		}
	}
	for (const blank of held.querySelectorAll('[data-blank]')) {
		const marker = document.createElement(blank.tagName === 'DIV' ? 'div' : 'span');
		marker.className = 'blank';
		marker.id = blank.getAttribute('data-blank') ?? '';
		blank.replaceWith(marker);
	}
	unwrap(held);
	// as XML, which is what rich text of ours is
	return [...held.childNodes]
		.map((node) => new XMLSerializer().serializeToString(node))
		.join('')
		.replace(/ xmlns="http:\/\/www\.w3\.org\/1999\/xhtml"/g, '')
		.replace(/<(\w+)([^<>]*?) \/>/g, '<$1$2/>');
}

/** An editor puts every line into a paragraph; one that stands alone, in an entry of a list or a cell, is none. */
function unwrap(held: HTMLElement): void {
	for (const box of [held, ...held.querySelectorAll<HTMLElement>('li, td, th')]) {
		for (const empty of box.querySelectorAll(':scope > p > br:only-child')) empty.remove();
		const [first, second] = box.children;
		const alone = first?.tagName === 'P' && (!second || (box.tagName === 'LI' && /^[OU]L$/.test(second.tagName)));
		if (alone && !first.attributes.length) first.replaceWith(...first.childNodes);
	}
	for (const group of held.querySelectorAll('colgroup')) group.remove();
	for (const cell of held.querySelectorAll('td, th, table'))
		for (const name of ['style', 'colwidth', 'class']) cell.removeAttribute(name);
	for (const cell of held.querySelectorAll('[colspan="1"]')) cell.removeAttribute('colspan');
	for (const cell of held.querySelectorAll('[rowspan="1"]')) cell.removeAttribute('rowspan');
}

/** How often each element and each word stands in rich text: what an editor may not lose. */
function inventory(markup: Markup): string {
	const held = document.createElement('div');
	held.innerHTML = markup.replace(/<([a-z0-9]+)((?:\s[^<>]*?)?)\/>/g, '<$1$2></$1>');
	// paragraphs and rows are put in by an editor, and say nothing by themselves
	const layout = new Set(['P', 'TBODY', 'THEAD', 'COLGROUP', 'COL', 'BR', 'SPAN', 'DIV']);
	const names = [...held.querySelectorAll('*')]
		.filter(({ tagName, className }) => !layout.has(tagName.toUpperCase()) || className)
		.map((node) => `${node.tagName.toLowerCase()}.${node.getAttribute('class') ?? ''}`);
	return JSON.stringify([names.sort(), (held.textContent ?? '').replace(/\s+/g, '')]);
}

/** Whether an editor gives back all that was put into it: every word, and every element that carries meaning. */
export function losesNothing(before: Markup, after: Markup): boolean {
	return inventory(before) === inventory(after);
}
