import { resolvePath } from '../../container/container';
import type { ReaderRule } from '../../reports/rules';
import { escapeAttribute, escapeText } from '../../xml/serialise';
import { childOf, childrenOf, descendants, textOf, type XmlElement } from '../../xml/tree';
import { equation } from './equations';
import { signOf, withSigns } from './symbols';
import { isOn, value, type Word } from './word';

/** A piece of a paragraph. */
export interface Run {
	text: string;
	markup: string;
	stressed: boolean;
	/** Nobody sees it who does not ask for it. */
	hidden?: boolean;
	/** It is struck through. */
	struck?: boolean;
}

const pixels = (length: string | undefined) => (length ? Math.round(Number(length) / 9525) : 0);

function picture(word: Word, node: XmlElement): string {
	const blip = descendants(node, 'blip', 'imagedata')[0];
	const id =
		blip?.attributes.embed ?? blip?.attributes['r:embed'] ?? blip?.attributes.id ?? blip?.attributes['r:id'] ?? '';
	const target = word.relations.get(id);
	const path = target ? resolvePath(word.path, target) : null;
	if (!path) return '';
	const extent = descendants(node, 'extent')[0];
	const described = descendants(node, 'docPr')[0]?.attributes.descr ?? '';
	const [width, height] = [pixels(extent?.attributes.cx), pixels(extent?.attributes.cy)];
	const size = `${width ? ` width="${width}"` : ''}${height ? ` height="${height}"` : ''}`;
	return `<img src="media:${escapeAttribute(word.container.find(path) ?? path)}" alt="${escapeAttribute(described)}"${size}/>`;
}

/** The box of a form that can be ticked, as a control for content has it. */
const checkboxOf = (node: XmlElement) => childOf(childOf(node, 'sdtPr'), 'checkbox');
const ticked = (isTicked: boolean) => (isTicked ? '☒' : '☐');

/** The pieces of a paragraph; a null is the end of a line. */
export function runsOf(word: Word, parent: XmlElement, told: (rule: ReaderRule) => void): (Run | null)[] {
	const out: (Run | null)[] = [];
	for (const node of childrenOf(parent)) {
		if (node.name === 'del' || node.name === 'moveFrom') told('tracked-changes');
		else if (node.name === 'ins' || node.name === 'moveTo') {
			told('tracked-changes');
			out.push(...runsOf(word, node, told));
		} else if (node.name === 'sdt' && checkboxOf(node)) {
			const box = ticked(isOn(childOf(checkboxOf(node), 'checked')));
			out.push({ text: box, markup: box, stressed: false });
		} else if (['hyperlink', 'smartTag', 'sdt', 'sdtContent', 'fldSimple', 'customXml'].includes(node.name))
			out.push(...runsOf(word, node, told));
		else if (node.name === 'AlternateContent')
			out.push(...runsOf(word, childOf(node, 'Choice') ?? childOf(node, 'Fallback') ?? node, told));
		else if (node.name === 'oMath' || node.name === 'oMathPara') {
			out.push({ ...equation(node), stressed: false });
		} else if (node.name === 'r') out.push(...runOf(word, node, told));
	}
	return out;
}

const lineToWriteOn = /^[\s\u00a0]{3,}$/;
const writingLine = '_____';

/** The element for text above or below its line, also where it was only moved there (ECMA-376 part 1, 17.3.2.24). */
function verticalOf(style: XmlElement | undefined): 'sup' | 'sub' | null {
	const said = value(childOf(style, 'vertAlign'));
	if (said === 'superscript') return 'sup';
	if (said === 'subscript') return 'sub';
	const moved = childOf(style, 'sz') ? Number(value(childOf(style, 'position')) || 0) : 0;
	return moved > 0 ? 'sup' : moved < 0 ? 'sub' : null;
}

function runOf(word: Word, node: XmlElement, told: (rule: ReaderRule) => void): (Run | null)[] {
	const own = childOf(node, 'rPr');
	const ofStyle = word.styles.runs.get(value(childOf(own, 'rStyle')));
	const style = own && ofStyle ? { ...own, children: [...own.children, ...ofStyle.children] } : own;
	const hidden = isOn(childOf(style, 'vanish'));
	const struck = isOn(childOf(style, 'strike')) || isOn(childOf(style, 'dstrike'));
	const colour = value(childOf(style, 'color'));
	const bold = isOn(childOf(style, 'b'));
	const italic = isOn(childOf(style, 'i'));
	const under = childOf(style, 'u') !== undefined && value(childOf(style, 'u')) !== 'none';
	const highlight = childOf(style, 'highlight') !== undefined && value(childOf(style, 'highlight')) !== 'none';
	const shade = childOf(style, 'shd')?.attributes.fill;
	const coloured = colour !== '' && !/^(auto|000000|black)$/i.test(colour);
	const shaded = shade !== undefined && !/^(auto|ffffff)$/i.test(shade);
	const stressed = bold || under || highlight || coloured || shaded;
	const vertical = verticalOf(style);
	const fonts = childOf(style, 'rFonts')?.attributes;
	const font = fonts?.ascii ?? fonts?.hAnsi ?? '';
	const wrap = (text: string) => {
		let rich = escapeText(text);
		if (bold && text.trim()) rich = `<b>${rich}</b>`;
		if (italic && text.trim()) rich = `<i>${rich}</i>`;
		return vertical ? `<${vertical}>${rich}</${vertical}>` : rich;
	};
	const how = { stressed, ...(hidden ? { hidden } : {}), ...(struck ? { struck } : {}) };
	const plain = (text: string, markup = wrap(text)): Run => ({ text, markup, ...how });
	const worded = childrenOf(node, 't').some((child) => textOf(child).trim() !== '');
	const out: (Run | null)[] = [];
	for (const child of childrenOf(node)) {
		if (child.name === 't') {
			const text = withSigns(font, textOf(child));
			// blanks that are underlined are a line to write on
			out.push(under && lineToWriteOn.test(text) ? plain(writingLine) : plain(text));
		} else if (child.name === 'fldChar') {
			const box = descendants(child, 'checkBox')[0];
			// what was ticked counts, and what is ticked at first where nothing was (17.16.8: checkBox)
			if (box) out.push(plain(ticked(isOn(childOf(box, 'checked') ?? childOf(box, 'default')))));
		} else if (child.name === 'tab') out.push(under && !worded ? plain(writingLine) : plain('    ', ' '));
		else if (child.name === 'br' || child.name === 'cr') out.push(null);
		else if (child.name === 'noBreakHyphen') out.push(plain('-'));
		else if (child.name === 'sym') {
			const sign = signOf(child.attributes.font ?? '', Number.parseInt(child.attributes.char ?? '', 16));
			if (sign === null) told('unknown-sign');
			out.push(plain(sign ?? '□'));
		} else if (['drawing', 'pict', 'object', 'AlternateContent'].includes(child.name)) {
			const inner =
				child.name === 'AlternateContent' ? (childOf(child, 'Choice') ?? childOf(child, 'Fallback')) : child;
			if (!inner) continue;
			out.push({ text: '', markup: picture(word, inner), stressed });
			const boxed = descendants(inner, 'txbxContent').flatMap((box) => descendants(box, 't').map(textOf));
			if (boxed.join('').trim()) word.boxes.push(boxed.join('').trim());
		} else if (child.name === 'footnoteReference' || child.name === 'endnoteReference') {
			const said = word.notes.get(`${child.name.replace('Reference', '')} ${child.attributes.id ?? ''}`);
			if (!said) continue;
			told('footnote');
			out.push({ text: ` (${said})`, markup: ` (${escapeText(said)})`, stressed: false });
		}
	}
	return out;
}
