import { Mark, mergeAttributes, Node } from '@tiptap/core';

const kept = (name: string) => ({
	default: null as string | null,
	parseHTML: (element: HTMLElement) => element.getAttribute(name),
	renderHTML: (attributes: Record<string, unknown>) =>
		attributes[name] === null || attributes[name] === undefined ? {} : { [name]: attributes[name] }
});

/** A thing of one piece within a line, of an element with some attributes. */
const piece = (
	name: string,
	tags: string[],
	attributes: string[],
	tag: string,
	words?: (of: Record<string, string>) => string
) =>
	Node.create({
		name,
		group: 'inline',
		inline: true,
		atom: true,
		selectable: true,
		draggable: true,
		priority: 200,
		addAttributes: () => Object.fromEntries(attributes.map((attribute) => [attribute, kept(attribute)])),
		parseHTML: () => tags.map((selector) => ({ tag: selector, priority: 100 })),
		renderHTML: ({ HTMLAttributes }) =>
			words
				? [tag, mergeAttributes(HTMLAttributes, { class: name }), words(HTMLAttributes as Record<string, string>)]
				: [tag, HTMLAttributes]
	});

/** A picture: it carries the name under which its question speaks of it. */
export const Picture = piece('picture', ['img'], ['src', 'alt', 'width', 'height', 'data-media'], 'img');
/** The place of a blank. */
export const BlankPlace = piece(
	'blank',
	['span[data-blank]', 'div[data-blank]'],
	['data-blank'],
	'span',
	(of) => `[${of['data-blank'] ?? ''}]`
);
/** A sound, a film, or a file. */
export const Sound = piece(
	'sound',
	['audio[data-media]', 'video[data-media]', 'span[data-media]'],
	['data-media'],
	'span',
	(of) => `♪ ${of['data-media'] ?? ''}`
);

/** A formula in MathML, which it carries whole. */
export const Formula = Node.create({
	name: 'formula',
	group: 'inline',
	inline: true,
	atom: true,
	selectable: true,
	addAttributes: () => ({
		math: {
			default: '',
			parseHTML: (element: HTMLElement) => element.outerHTML,
			renderHTML: (attributes: Record<string, unknown>) => ({ 'data-math': String(attributes.math) })
		}
	}),
	parseHTML: () => [{ tag: 'math', priority: 100 }],
	renderHTML: ({ HTMLAttributes }) => ['span', { ...HTMLAttributes, class: 'formula' }, '∑'],
	addNodeView:
		() =>
		({ node }) => {
			const dom = document.createElement('span');
			dom.className = 'formula';
			// it was cleaned before it was stored, or made by the typesetter; nothing in a formula runs
			dom.innerHTML = String(node.attrs.math);
			return { dom };
		}
});

/** The place of a variable of a calculated question. */
export const VariablePlace = Mark.create({
	name: 'variable',
	parseHTML: () => [{ tag: 'var.variable' }],
	renderHTML: () => ['var', { class: 'variable' }, 0]
});

const mark = (name: string, tags: string[], tag: string, attributes: Record<string, string> = {}) =>
	Mark.create({
		name,
		parseHTML: () => tags.map((selector) => ({ tag: selector })),
		renderHTML: () => [tag, attributes, 0]
	});

/** Marks of a few letters: above and below the line, underlined, struck, code and others that standards have. */
export const marks = [
	mark('above', ['sup'], 'sup'),
	mark('below', ['sub'], 'sub').extend({ excludes: 'above' }),
	mark('underlined', ['span.underlined', 'u'], 'span', { class: 'underlined' }),
	mark('struck', ['span.struck', 's', 'del'], 'span', { class: 'struck' }),
	mark('marked', ['span.marked', 'mark'], 'span', { class: 'marked' }),
	mark('keyboard', ['kbd'], 'kbd'),
	mark('cited', ['cite'], 'cite'),
	mark('small', ['small'], 'small')
];
