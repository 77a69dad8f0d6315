import { DamagedElement, linesIn, longestTag } from './damaged';
import type { StreamOptions, XmlEvent, XmlFault } from './events';
import { repairStartTag } from './repair';
import { Run } from './run';

const unfinishedReference = /&[#\w.:-]{0,70}$/;

const slice = 1 << 15;

/** The pieces, none of them large, so that few elements wait to be taken; and then null for their end. */
async function* withEnd(pieces: AsyncIterable<string> | Iterable<string>): AsyncGenerator<string | null> {
	for await (const piece of pieces) for (let at = 0; at < piece.length; at += slice) yield piece.slice(at, at + slice);
	yield null;
}

/** After so many faults outside of elements no more of what stands between them is read. */
const mostOutside = 100;

/** A pass over a document: a run, and what is done where it meets a fault. */
class Pass {
	#run: Run | null;
	#damaged: DamagedElement | null = null;
	/** Whether the next element is looked for, and what stands before it passed over. */
	#seeking = false;
	/** The names of what is open around the elements. */
	#containers: string[] = [];
	/** What is left of the last piece. */
	#rest = '';
	/** The lines before what is read next. */
	#lines = 0;
	#outside = 0;
	/** Whether a fault has ended it. */
	ended = false;
	readonly #begins: RegExp;

	constructor(readonly options: StreamOptions) {
		this.#run = new Run(options, [], 0);
		this.#begins = new RegExp(`<(?:[\\w.-]+:)?${options.resumeAt ?? ''}(?=[\\s/>])`);
	}

	/** Takes the next piece of the text, or null for its end. */
	*take(piece: string | null): Generator<XmlEvent> {
		const last = piece === null;
		let todo = this.#rest + (piece ?? '');
		this.#rest = '';
		const unfinished = last ? null : unfinishedReference.exec(todo);
		if (unfinished) {
			this.#rest = unfinished[0];
			todo = todo.slice(0, unfinished.index);
		}
		do {
			while (todo && !this.ended) todo = yield* this.#next(todo, last);
			if (last && !this.ended) todo = yield* this.#end();
		} while (todo);
	}

	/** Reads on in a text; gives what is left of it. */
	*#next(todo: string, last: boolean): Generator<XmlEvent, string> {
		if (this.#damaged) return yield* this.#throughDamaged(todo, last);
		if (this.#seeking) return this.#seek(todo, last);
		this.#run ??= new Run(this.options, this.#containers, this.#lines);
		const run = this.#run;
		const read = run.write(todo);
		yield* run.events.splice(0);
		return run.fault ? yield* this.#faulty(run, run.fault, todo.slice(read), todo.length, last) : '';
	}

	*#throughDamaged(todo: string, last: boolean): Generator<XmlEvent, string> {
		const found = this.#damaged!.take(todo, last);
		if (!found) return '';
		yield found.event;
		this.#lines = found.event.to - 1;
		this.#damaged = null;
		return found.rest;
	}

	#seek(todo: string, last: boolean): string {
		const at = this.#begins.exec(todo)?.index ?? -1;
		const passed = at < 0 ? todo.slice(0, last ? undefined : -longestTag) : todo.slice(0, at);
		this.#lines += linesIn(passed);
		if (at < 0) {
			this.#rest = todo.slice(passed.length) + this.#rest;
			return '';
		}
		this.#seeking = false;
		return todo.slice(at);
	}

	/** Deals with a fault; gives what is to be read next. */
	*#faulty(run: Run, fault: XmlFault, rest: string, before: number, last: boolean): Generator<XmlEvent, string> {
		const { resumeAt } = this.options;
		if (!resumeAt || fault.rule === 'external-entity' || fault.rule === 'entity-expansion') {
			yield fault;
			this.ended = true;
			return '';
		}
		this.#run = null;
		const begun = run.begun();
		this.#containers = run.open.filter((entry) => typeof entry === 'string');
		const from = fault.inside?.line ?? fault.line - linesIn(begun);
		this.#lines = from - 1;
		if (fault.inside?.name === resumeAt || (!fault.inside && this.#begins.exec(begun)?.index === 0)) {
			this.#damaged = new DamagedElement({ ...fault, from }, resumeAt, this.#containers);
			return begun + rest;
		}
		if (!fault.inside && begun.startsWith('<') && !/>/.test(rest) && !/>$/.test(begun) && !last) {
			// the tag goes on in the next piece
			this.#rest = begun + rest + this.#rest;
			return '';
		}
		yield fault;
		this.#outside += 1;
		const tag = fault.inside || begun.endsWith('>') ? null : repairStartTag(begun + rest);
		// a tag that needs no mending is refused for where it stands
		const mended = tag !== null && tag.xml !== (begun + rest).slice(0, tag.length);
		if (mended && this.#outside < mostOutside) return tag.xml + (begun + rest).slice(tag.length);
		this.#lines = fault.line - 1;
		const refused = tag !== null || /^<[^/!?][^>]*>$/.test(begun);
		this.#seeking = fault.inside !== null || refused || !this.#containers.length || this.#outside >= mostOutside;
		// an ampersand by itself has not been read yet; whatever it is, the same is not read twice
		return rest.startsWith('&') || rest.length === before ? rest.slice(1) : rest;
	}

	/** Ends the run; gives what is to be read again, where an element that never ended held others that follow it. */
	*#end(): Generator<XmlEvent, string> {
		const run = this.#run;
		this.#run = null;
		if (!run) return '';
		run.end();
		yield* run.events.splice(0);
		if (!run.fault) return '';
		const { resumeAt } = this.options;
		const { fault } = run;
		if (resumeAt && fault.inside?.name === resumeAt) {
			this.#containers = run.open.filter((entry) => typeof entry === 'string');
			const cause: XmlFault = {
				...fault,
				rule: 'not-well-formed',
				line: fault.inside.line,
				message: 'it is never closed: an end tag, a quotation mark or the end of a comment is missing'
			};
			const found = new DamagedElement(cause, resumeAt, this.#containers).take(run.begun(), true)!;
			if (!found.cut) {
				yield found.event;
				this.#lines = found.event.to - 1;
				return found.rest;
			}
		}
		yield { ...fault, fragment: fault.inside && run.begun() };
		return '';
	}
}

/**
 * Passes over an XML document that arrives in pieces, in bounded memory: one collected element at a time.
 * Nothing outside the document is ever fetched, and declared entities are taken only where they are plain characters.
 * A fault ends the pass or, with `resumeAt`, only the element that it stands in, which is given with its source; a tag
 * between those elements is put right.
 */
export async function* streamXml(
	pieces: AsyncIterable<string> | Iterable<string>,
	options: StreamOptions
): AsyncGenerator<XmlEvent> {
	const pass = new Pass(options);
	for await (const piece of withEnd(pieces)) {
		yield* pass.take(piece);
		if (pass.ended) return;
	}
}
