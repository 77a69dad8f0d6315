import type { Container } from '../../container/container';
import type { XmlElement } from '../../xml/tree';

/** A level of a list. */
export interface Level {
	format: string;
	start: number;
}

/** What the styles of a document say. */
export interface Styles {
	/** The level of a heading by the identifier of its style; 0 for a title. */
	headings: Map<string, number>;
	/** The list that a style belongs to. */
	lists: Map<string, { list: string; level: number }>;
	/** The properties of text that a style sets, by its identifier, those of the styles that it is based on with them. */
	runs: Map<string, XmlElement>;
}

/** A document while it is read: its parts, and what has come so far. */
export interface Word {
	container: Container;
	path: string;
	relations: Map<string, string>;
	styles: Styles;
	/** The levels of each list by its number (ECMA-376 part 1, 17.9). */
	lists: Map<string, { key: string; levels: Map<number, Level>; restarts: Map<number, number> }>;
	counters: Map<string, number[]>;
	/** The lists that have come, by their numbers. */
	begun: Set<string>;
	/** The words of footnotes and endnotes, by what they are and their number. */
	notes: Map<string, string>;
	/** The words of text boxes, which lie beside the text. */
	boxes: string[];
	/** Words that nobody sees who does not ask for them, and that were left out. */
	hidden: string[];
}

/** What an element says by its `val`; empty where it says nothing, or is not there. */
export const value = (node: XmlElement | undefined) => node?.attributes.val ?? node?.attributes['w:val'] ?? '';
/** Whether a property that can be on or off is on (ECMA-376 part 1, 17.17.4: ST_OnOff). */
export const isOn = (node: XmlElement | undefined) => node !== undefined && !/^(0|false|none|off)$/.test(value(node));
