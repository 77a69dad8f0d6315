import type { XmlElement } from './tree';

/** What is wrong in a document, and where. */
export interface XmlFault {
	type: 'fault';
	rule: 'not-well-formed' | 'cut-off' | 'external-entity' | 'entity-expansion' | 'bad-entity';
	line: number;
	message: string;
	inside: XmlElement | null;
	/** The source of the damaged element as it came, from its start tag on, where one can be told; else null. */
	fragment: string | null;
	/** The lines that it begins and ends on. */
	from: number;
	to: number;
}

/** What a pass over an XML document meets, in order. Lines count from 1. */
export type XmlEvent =
	| { type: 'open'; name: string; attributes: Record<string, string>; line: number }
	| { type: 'close'; name: string }
	| { type: 'element'; element: XmlElement; fragment: string; endLine: number }
	| XmlFault;

/** How a pass goes about its work. */
export interface StreamOptions {
	/** Names of elements that are given whole. Any other element is given as `open` and `close`. */
	collect: (name: string, depth: number) => boolean;
	/** The elements of this name are damaged each for itself: after a fault, go on behind the one that it stands in. */
	resumeAt?: string;
	/** Whether collected elements are given without their source, for which the text need not be kept. */
	withoutSource?: boolean;
}
