import { bounds, keptOfSource } from '../model/bounds';
import type { XmlFault } from './events';

/** How many ends of lines are in a text. */
export const linesIn = (text: string) => text.split('\n').length - 1;

/** The longest tag that may be split over two pieces while the end of a damaged element is looked for. */
export const longestTag = 256;

/** A damaged element, while its end is looked for. */
export class DamagedElement {
	#text = '';
	/** The beginning of what was too long to be kept, and the lines of it that were let go. */
	#head = '';
	#lines = 0;
	/** How much of the text has been looked through. */
	#seen = 1;
	readonly #end: RegExp;

	/** `containers` are the names of what stands around it. */
	constructor(
		readonly fault: XmlFault,
		readonly name: string,
		containers: string[]
	) {
		const around = [...new Set([name, ...containers])].map((one) => one.replace(/[.\\-]/g, '\\$&')).join('|');
		this.#end = new RegExp(`<(/)?(?:[\\w.-]+:)?(${around})(?=[\\s/>])`, 'g');
	}

	/**
	 * Takes the next piece of its text. Gives the fault with its source, and what stands behind it, as soon as its end is
	 * known; with `last` there is no more text, and where its end is still unknown then, the file is cut off in it.
	 */
	take(piece: string, last: boolean): { event: XmlFault; rest: string; cut: boolean } | null {
		this.#text += piece;
		this.#letGo();
		this.#end.lastIndex = this.#seen;
		const found = this.#end.exec(this.#text);
		const own = found?.[1] === '/' && found[2] === this.name;
		const closed = own ? this.#text.indexOf('>', found.index) + 1 : 0;
		if (found && (!own || closed)) return this.#ended(own ? closed : found.index, false);
		if (last) return this.#ended(this.#text.length, true);
		this.#seen = found ? found.index : Math.max(this.#seen, this.#text.length - longestTag);
		return null;
	}

	/** Of what is too long to be kept the beginning stays, and the lines of the rest are counted. */
	#letGo(): void {
		if (this.#seen < bounds.source) return;
		this.#head ||= this.#text.slice(0, keptOfSource);
		this.#lines += linesIn(this.#text.slice(0, this.#seen));
		this.#text = this.#text.slice(this.#seen);
		this.#seen = 0;
	}

	#ended(at: number, cut: boolean): { event: XmlFault; rest: string; cut: boolean } {
		const end = this.#text.slice(0, at);
		const fragment = this.#head || end;
		const to = this.fault.from + this.#lines + linesIn(end);
		return { event: { ...this.fault, fragment, to }, rest: this.#text.slice(at), cut };
	}
}
