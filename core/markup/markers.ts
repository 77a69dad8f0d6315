import type { Markup } from '../model/question';
import { element, type XmlElement } from '../xml/tree';

const blankPattern = /<(span|div) class="blank" id="([^"]*)"(?:\/>|><\/\1>)/g;
const variablePattern = /<var class="variable">([A-Za-z_]\w*)<\/var>/g;

/** The place of a blank in a stem: within a line, or as a block of its own. */
export function blankMarker(identifier: string, block = false): XmlElement {
	return element(block ? 'div' : 'span', { class: 'blank', id: identifier });
}

/** The place of a variable's value in rich text. */
export function variableMarker(name: string): XmlElement {
	return element('var', { class: 'variable' }, [name]);
}

/** Whether an element is the place of a blank. */
export function isBlankMarker(node: XmlElement): boolean {
	return node.attributes.class === 'blank' && node.attributes.id !== undefined && node.children.length === 0;
}

/** The identifiers of the blanks of a stem, in its order. */
export function blanksIn(stem: Markup): string[] {
	return [...stem.matchAll(blankPattern)].map((found) => found[2]!);
}

/** A stem with each of its blanks replaced; `change` is told whether the blank stands as a block. */
export function replaceBlanks(stem: Markup, change: (identifier: string, block: boolean) => string): Markup {
	return stem.replace(blankPattern, (_, name: string, identifier: string) => change(identifier, name === 'div'));
}

/** Rich text with each of its variables replaced. */
export function replaceVariables(markup: Markup, change: (name: string) => string): Markup {
	return markup.replace(variablePattern, (_, name: string) => change(name));
}
