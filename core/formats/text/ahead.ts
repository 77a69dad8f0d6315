import { stemText, type Block } from './block';
import { keyEntries, keyHeading } from './keys';
import type { Line } from './lines';
import { cut, fieldOf, numberMark, optionMark, placeOfLabel, type OptionMark } from './marks';

/** A line that only parts what stands above it from what stands below. */
export const separatorLine = /^(?:[-=_*~#•.]\s*){3,}$/;

const letterToNumber = /\b[A-Za-z]\)?\s*(?:[-–—=:→]+>?\s*)?\(?\d{1,2}\b/g;

/** The level of a heading, of a word processor or of Markdown; null for any other line. */
export const headingLevel = (line: Line): number | null =>
	line.heading ?? /^(#{1,6})\s/.exec(line.text)?.[1]!.length ?? null;

/** What stands around a place in a text, for what one line alone cannot tell. Places count the lines from 0. */
export class Ahead {
	readonly #lines: Line[];
	#titlesBehind: boolean | null = null;
	#asking = new Map<number, boolean>();

	/** `before` is what was known of the part in front of these lines: what is told by a text as a whole is told by its first part. */
	constructor(lines: Line[], before: Ahead | null = null) {
		this.#lines = lines;
		if (!before) return;
		this.#titlesBehind = before.titlesBehind;
		this.#asking = before.#asking;
	}

	/** The lines in front of the list of answers, where there is one. */
	#asked(): Line[] {
		const end = this.#lines.findIndex((line) => keyHeading.test(line.text.replace(/^#+\s*/, '')));
		return end < 0 ? this.#lines : this.#lines.slice(0, end);
	}

	/** Whether titles stand below their questions: the last one has no question below it. */
	get titlesBehind(): boolean {
		const last = (holds: (line: Line) => boolean) => this.#asked().findLastIndex(holds);
		this.#titlesBehind ??= last((line) => fieldOf(line)?.name === 'title') > last((line) => numberMark(line) !== null);
		return this.#titlesBehind;
	}

	/** The lines behind a place that are not empty. */
	*after(at: number): Generator<Line> {
		for (let place = at + 1; place < this.#lines.length; place += 1)
			if (this.#lines[place]!.text || this.#lines[place]!.table) yield this.#lines[place]!;
	}

	/**
	 * Whether the numbered headings of a level are questions and no sections: options or answers stand right below some
	 * of them, or they end as questions do, and no numbered lines below any.
	 */
	headingsAsk(level: number): boolean {
		const known = this.#asking.get(level);
		if (known !== undefined) return known;
		let [asking, counted, sections] = [0, false, 0];
		for (const line of this.#asked()) {
			const deep = headingLevel(line);
			if (deep !== null) {
				const text = line.text.replace(/^#+\s*/, '');
				if (deep <= level)
					counted = deep === level && numberMark({ ...line, text, heading: null, list: null }) !== null;
				if (counted && deep === level && /[?.:…]$/.test(text.replace(/\s*[([][^()[\]]*[)\]]$/, ''))) asking += 1;
			} else if (counted && numberMark(line) && !/^[a-z]$/i.test(optionMark(line)?.label ?? '')) sections += 1;
			else if (counted && (optionMark(line) || fieldOf(line)?.name === 'answer')) asking += 1;
		}
		const asks = asking > 0 && sections === 0;
		this.#asking.set(level, asks);
		return asks;
	}

	/** The next line behind a place that is not empty. */
	next(at: number): Line | undefined {
		return this.after(at).next().value as Line | undefined;
	}

	/** Whether a list of numbers and answers comes next, and not the options of a question. */
	answersFollow(at: number): boolean {
		const next = this.next(at);
		return next !== undefined && keyEntries(next.text).length > 0;
	}

	/** Whether the next thing is a question, with only fields in between, or a table that may hold some. */
	questionFollows(at: number): boolean {
		for (const line of this.after(at)) {
			if (line.table) return true;
			if (numberMark(line)) return true;
			if (!fieldOf(line)) return false;
		}
		return false;
	}

	/** Whether options come after a line before the next question. */
	optionsFollow(at: number): boolean {
		for (const line of this.#lines.slice(at + 1, at + 8)) {
			if (!line.text) continue;
			const option = optionMark(line);
			if (option) return placeOfLabel(option.label, true) === 0 || option.ticked !== null;
			if (numberMark(line) || line.heading !== null) return false;
		}
		return false;
	}

	/** Whether another option of a question comes before anything else. */
	moreOptions(at: number, block: Block): boolean {
		for (const line of this.after(at)) {
			const option = optionMark(line);
			// the number of the next question is no label among letters
			const counted = /^\d+$/.test(option?.label ?? '') && !/^\d+$/.test(block.options[0]?.label ?? '');
			if (
				option &&
				!counted &&
				(option.ticked !== null ||
					placeOfLabel(option.label, false) === block.options.length ||
					placeOfLabel(option.label, true) === block.options.length)
			)
				return true;
			return false;
		}
		return false;
	}

	/** Whether numbered lines run on from a place, from 1, to an answer that pairs letters with their numbers: "A-1, B-2". */
	pairsLetters(at: number): boolean {
		let next = 1;
		for (const line of this.#lines.slice(at, at + 40)) {
			if (!line.text) continue;
			const field = fieldOf(line);
			if (field)
				return next > 2 && field.name === 'answer' && (field.value.text.match(letterToNumber)?.length ?? 0) > 1;
			if (numberMark(line)?.number !== next) return false;
			next += 1;
		}
		return false;
	}

	/** Whether pairs come next, or are asked for. */
	pairFollows(at: number, block: Block): boolean {
		const next = this.next(at);
		return (
			/\bmatch|pair\b/i.test(stemText(block)) ||
			(next !== undefined && /^.+?\s*(?:={1,2}>?|->|→)\s*.+$/.test(next.text) && !fieldOf(next))
		);
	}

	/**
	 * Where a list within a question ends that begins at a line with the number 1, or -1 where it is no such list: its
	 * numbers run on from 1, and then comes the answer, or the number that the next question has.
	 */
	listEnd(at: number, block: Block): number {
		const stem = stemText(block);
		const asked = /:$/.test(stem) || /\b(order|sequence|arrange|rank|match|following)\b/i.test(stem);
		let next = 1;
		let gap = false;
		let gaps = 0;
		let end = at;
		for (let place = at; place < this.#lines.length; place += 1) {
			const line = this.#lines[place]!;
			if (!line.text) {
				gap = true;
				continue;
			}
			const found = numberMark(line);
			const field = fieldOf(line);
			if (field || line.heading !== null || separatorLine.test(line.text))
				return next > 2 && (field?.name === 'answer' || field?.name === 'order') && (asked || !gaps) ? end : -1;
			if (found && (found.number !== next || (gap && found.number === block.number + 1)))
				return next > 2 && asked && !gaps && found.number === block.number + 1 ? end : -1;
			if (found) {
				if (gap && next > 1) gaps += 1;
				next += 1;
			} else if (gap) return next > 2 && asked && !gaps && optionMark(line) !== null ? end : -1;
			gap = false;
			end = place;
		}
		return next > 2 && asked && !gaps ? end : -1;
	}

	/** An option whose letter has no sign behind it ("A   Bowline"), where the next letter, or the one before, stands so too. */
	bareLetter(line: Line, at: number): OptionMark | null {
		const pattern = /^([A-Ha-h])\s{2,}(?=\S)/;
		const found = pattern.exec(line.text);
		if (!found || line.table) return null;
		const letter = found[1]!.charCodeAt(0);
		const near = (step: number) => {
			for (let other = at + step; ; other += step) {
				const line = this.#lines[other];
				if (!line) return false;
				if (line.text) return pattern.exec(line.text)?.[1]!.charCodeAt(0) === letter + step;
			}
		};
		if (!near(1) && !near(-1)) return null;
		return {
			label: found[1]!,
			style: 'bare',
			starred: false,
			ticked: null,
			bullet: false,
			rest: cut(line, found[0].length)
		};
	}
}
