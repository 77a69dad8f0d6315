import { fold, plainText, beginning } from '../../markup/text';
import type { Markup, Question } from '../../model/question';
import type { Report } from '../../reports/report';
import { escapeText } from '../../xml/serialise';
import { assemble, emptyDraft, kindOfWord, numberAnswer, truthOf, type Draft } from '../assemble';
import { categoryOf, listOf } from '../table/cells';
import { fieldOf, optionMark, placeOfLabel, numberMark, withoutEmphasis, cut, type OptionMark } from './marks';
import type { Line } from './lines';

/** What a marked text holds. */
export interface TextFound {
	/** The title and the paragraph in front of the first question. */
	title: string;
	introduction: string;
	questions: { question: Question; reports: Report[]; from: number; to: number }[];
	/** Reports on the text as a whole. */
	reports: Report[];
}

interface FoundOption {
	label: string;
	style: string;
	text: Markup[];
	plain: string;
	right: boolean;
	stressed: boolean;
	feedback: Markup[];
	line: number;
}

interface Block {
	number: number;
	numbered: boolean;
	style: string;
	indent: number;
	stem: { line: Line; gap: boolean }[];
	options: FoundOption[];
	draft: Draft;
	answers: { value: string; line: number }[];
	listed: string | null;
	pairs: [Line, Line][];
	from: number;
	to: number;
	notes: Omit<Report, 'place'>[];
	boxed: boolean;
	/** The last thing that was read, which a line that runs on belongs to. */
	last: 'stem' | 'option' | 'feedback' | 'option-feedback' | 'pair' | 'field';
	closed: boolean;
}

const separatorLine = /^(?:[-=_*~#•.]\s*){3,}$/;
const keyHeading =
	/^(?:the\s+)?(?:answer\s*key|answers|key|keys|solutions?|correct answers|answer sheet|marking key)\s*:?$/i;
const kindLine =
	/^[[(<]?\s*(essay|short answer|numeric|numerical|matching|true\s*[/|]?\s*(?:or)?\s*false|t\s*\/\s*f|multiple choice|multiple response|file upload|ordering|fill in the blanks?|information)(?:\s+question)?\s*[\])>]?\s*:?$/i;
/** Reads marked text: one lenient grammar over what people write. It never throws; what is not understood is reported. */
export function readMarkedText(lines: Line[], file: string, format: string): TextFound {
	return new Reader(lines, file, format).read();
}

class Reader {
	readonly #lines: Line[];
	readonly #file: string;
	readonly #format: string;
	readonly #found: TextFound = { title: '', introduction: '', questions: [], reports: [] };
	readonly #blocks: { block: Block; category: string[] }[] = [];
	readonly #headings: { level: number; title: string }[] = [];
	#sticky: string[] = [];
	#block: Block | null = null;
	#before: Line[] = [];
	#pending: Partial<Draft> = {};
	#gap = true;
	#inKey = false;
	#keys: { number: number; value: string; line: number }[] = [];
	#ended = false;

	constructor(lines: Line[], file: string, format: string) {
		this.#lines = lines;
		this.#file = file;
		this.#format = format;
	}

	read(): TextFound {
		this.#lines.forEach((line, at) => this.#line(line, at));
		this.#introduce();
		this.#applyKeys();
		for (const { block, category } of this.#blocks) this.#finish(block, category);
		return this.#found;
	}

	#report(
		rule: string,
		message: string,
		line: number,
		severity: Report['severity'] = 'untidy',
		words?: string[]
	): void {
		this.#found.reports.push({
			rule,
			severity,
			message,
			place: { file: this.#file, line },
			...(words ? { words } : {})
		});
	}

	#note(rule: string, message: string, severity: Report['severity'] = 'untidy', words?: string[]): void {
		this.#block?.notes.push({ rule, severity, message, ...(words ? { words } : {}) });
	}

	#category(): string[] {
		return this.#sticky.length ? this.#sticky : this.#headings.map((one) => one.title);
	}

	#line(line: Line, at: number): void {
		if (line.table) {
			this.#table(line);
			this.#gap = false;
			return;
		}
		if (!line.text && !/<(img|math|object)\b/.test(line.markup)) {
			this.#gap = true;
			return;
		}
		this.#read(line, at);
		this.#gap = false;
	}

	#read(line: Line, at: number): void {
		if (line.odd && this.#block) this.#note(line.odd.rule, line.odd.message);
		if (this.#heading(line)) return;
		if (separatorLine.test(line.text)) {
			if (this.#block) this.#ended = true;
			return;
		}
		if (keyHeading.test(withoutEmphasis(line).text) && (this.#gap || this.#blocks.length > 1) && this.#keyFollows(at)) {
			this.#inKey = true;
			this.#block = null;
			return;
		}
		if (this.#inKey && this.#keyLine(line)) return;
		const block = this.#block;
		const option = optionMark(line);
		const question = numberMark(line);
		if (option && block && this.#takesOption(block, option, question !== null, line)) {
			this.#option(block, option);
			return;
		}
		if (question && this.#startsQuestion(question.number, question.rest, line)) {
			this.#inKey = false;
			this.#start(question.number, true, question.style, line);
			if (question.rest.text || question.rest.markup) this.#stem(this.#block!, question.rest);
			return;
		}
		const field = fieldOf(line);
		if (field && this.#field(field.name, field.value, line, at)) return;
		if (!block) {
			this.#before.push(line);
			return;
		}
		if (this.#plainLine(block, line)) return;
		this.#runOn(block, line, at);
	}

	#heading(line: Line): boolean {
		const markdown = /^(#{1,6})\s+(.*?)\s*#*$/.exec(line.text);
		const level = line.heading ?? markdown?.[1]!.length ?? null;
		if (level === null) return false;
		const title = fold(
			(markdown ? withoutEmphasis({ ...line, text: markdown[2]! }).text : line.text).replace(/\*\*/g, '')
		);
		if (level === 0) {
			this.#before.unshift({ ...line, heading: 0 });
			return true;
		}
		const asQuestion = numberMark({ ...line, text: title, markup: escapeText(title), heading: null, list: null });
		if (asQuestion && /^q/i.test(title)) {
			this.#start(asQuestion.number, true, asQuestion.style, line);
			if (asQuestion.rest.text) this.#stem(this.#block!, asQuestion.rest);
			return true;
		}
		if (keyHeading.test(title)) {
			this.#inKey = true;
			this.#block = null;
			return true;
		}
		if (!title) return true;
		while (this.#headings.length && this.#headings.at(-1)!.level >= level) this.#headings.pop();
		this.#headings.push({ level, title });
		this.#sticky = [];
		this.#block = null;
		this.#inKey = false;
		return true;
	}

	/** Whether a list of numbers and answers comes next, and not the options of a question. */
	#keyFollows(at: number): boolean {
		const next = this.#lines.slice(at + 1).find((line) => line.text);
		return next !== undefined && keyEntries(next.text).length > 0;
	}

	#keyLine(line: Line): boolean {
		const list = line.list && line.list.kind !== 'bullet' ? `${line.list.label}. ${line.text}` : line.text;
		const entries = keyEntries(withoutEmphasis({ ...line, text: list }).text.replace(/^[-•*]\s+/, ''));
		if (!entries.length) {
			this.#inKey = false;
			return false;
		}
		for (const entry of entries) this.#keys.push({ ...entry, line: line.number });
		return true;
	}

	#startsQuestion(number: number, rest: Line, line: Line): boolean {
		const block = this.#block;
		if (!rest.text && !rest.markup && line.list === null && !/^\s*\W*(q|question|item|problem)/i.test(line.text))
			return false;
		// a number at the beginning of a line that runs on, such as "12. May", is not a question
		if (block && !this.#gap && !block.options.length && block.last === 'stem' && block.numbered) {
			if (block.stem.length && number !== block.number + 1 && number !== 1 && line.indent >= block.indent)
				return number > block.number && number < block.number + 4;
		}
		return true;
	}

	/** Whether options come after a line before the next question. */
	#optionsFollow(at: number): boolean {
		for (const line of this.#lines.slice(at + 1, at + 8)) {
			if (!line.text) continue;
			const option = optionMark(line);
			if (option) return placeOfLabel(option.label, true) === 0 || option.ticked !== null;
			if (numberMark(line) || line.heading !== null) return false;
		}
		return false;
	}

	#takesOption(block: Block, option: OptionMark, alsoQuestion: boolean, line: Line): boolean {
		if (option.ticked !== null) return true;
		const last = block.options.at(-1);
		if (option.bullet) {
			if (fieldOf(line)) return false;
			return last
				? last.style === 'bullet' && block.last !== 'feedback'
				: block.stem.length > 0 && block.last === 'stem';
		}
		if (!block.stem.length && !block.options.length) return false;
		const numeric = /^\d+$/.test(option.label);
		const place = placeOfLabel(
			option.label,
			last ? /^[ivx]+$/i.test(block.options[0]!.label) && block.options[0]!.label.toLowerCase() === 'i' : true
		);
		if (numeric) {
			// numbers are options where they are written in another way than those of the questions
			const style = `${option.style}`;
			const same = block.style === style && line.list === null;
			if (same && line.indent <= block.indent) return false;
			if (alsoQuestion && block.style === 'list' && line.list?.level === 0) return false;
			if (!last) return place === 0;
			return last.style === style && place === block.options.length;
		}
		if (place === null) return false;
		if (!last)
			return place === 0 || placeOfLabel(option.label, false) === 0 || option.style === 'list' || option.starred;
		if (last.style === 'box' || last.style === 'bullet') return false;
		const expected = block.options.length;
		if (place === expected || placeOfLabel(option.label, false) === expected) return true;
		if (placeOfLabel(option.label, false) === 0 && this.#gap && block.answers.length) return false;
		// skipped or repeated letters in the same hand are still options
		return last.style === option.style;
	}

	#option(block: Block, option: OptionMark): void {
		if (this.#gap && block.options.length === 0 && block.stem.length === 0) return;
		const pieces = splitInline(option, block.options.length);
		if (pieces.length > 1)
			this.#note(
				'options-on-a-line',
				`Its options stand on one line (line ${option.rest.number}); they were taken apart.`
			);
		for (const piece of pieces) {
			let { rest } = piece;
			let right = option === piece ? option.starred || option.ticked === true : piece.starred;
			const tail =
				/\s*(?:\*+|✓|✔|✅|\((?:correct|right|key)\)|\[(?:correct|right|key|x)\]|<--?\s*(?:correct|key))\s*$/i.exec(
					rest.text
				);
			if (tail && tail.index > 0) {
				right = true;
				rest = cut(rest, 0, tail.index);
			}
			const place = placeOfLabel(piece.label, block.options[0] ? /^i$/i.test(block.options[0].label) : true);
			const expected = block.options.length;
			if (piece.label && place !== null && place !== expected && placeOfLabel(piece.label, false) !== expected)
				this.#note(
					'odd-letter',
					`Option ${expected + 1} has the letter “${piece.label}”; it was read as the one in its place.`,
					'doubtful'
				);
			const typed = /^\(?([A-Za-z])[.):]\s+\S/.exec(rest.text);
			if (typed && piece.label && typed[1]!.toLowerCase() === piece.label.toLowerCase())
				this.#note(
					'typed-letter',
					`The letter of option ${expected + 1} is typed twice: “${rest.text}”. The second stands in its text; take it out.`,
					'untidy',
					[rest.text]
				);
			block.options.push({
				label: piece.label,
				style: piece.style,
				text: [rest.markup],
				plain: rest.text,
				right,
				stressed: rest.stressed || option.rest.stressed,
				feedback: [],
				line: rest.number
			});
		}
		if (option.ticked !== null) block.boxed = true;
		block.last = 'option';
		block.to = option.rest.number;
	}

	#start(number: number, numbered: boolean, style: string, line: Line): void {
		if (!this.#blocks.length) this.#introduce();
		else this.#leftOver(this.#before.splice(0));
		if (numbered && this.#block && number !== this.#block.number + 1 && number !== 1 && this.#block.numbered)
			this.#report(
				'odd-number',
				`After question ${this.#block.number} comes question ${number} (line ${line.number}). Both were read.`,
				line.number
			);
		this.#ended = false;
		this.#block = {
			number,
			numbered,
			style,
			indent: line.indent,
			stem: [],
			options: [],
			draft: { ...emptyDraft(), ...this.#pending },
			answers: [],
			listed: null,
			pairs: [],
			from: line.number,
			to: line.number,
			notes: [],
			boxed: false,
			last: 'stem',
			closed: false
		};
		this.#pending = {};
		if (line.odd) this.#note(line.odd.rule, line.odd.message);
		this.#blocks.push({ block: this.#block, category: this.#category() });
	}

	#stem(block: Block, line: Line): void {
		const trailing = /\s*[([]\s*(?:t\s*\/\s*f|true\s*\/\s*false|true or false)\s*[)\]]\s*$/i.exec(line.text);
		let kept = line;
		if (trailing && trailing.index > 0) {
			block.draft.kind = 'true-false';
			kept = cut(line, 0, trailing.index);
		}
		const lead = /^\s*[([]?\s*(?:t\s*\/\s*f)\s*[)\]]\s*[:.]?\s+/i.exec(kept.text);
		if (lead) {
			block.draft.kind = 'true-false';
			kept = cut(kept, lead[0].length);
		}
		const worth = /[([]\s*(\d+(?:[.,]\d+)?)\s*(?:points?|marks?|pts?\.?)\s*[)\]]\s*$/i.exec(kept.text);
		if (worth && block.draft.points === null) {
			block.draft.points = worth[1]!;
			kept = cut(kept, 0, worth.index);
		}
		if (kept.text || kept.markup) block.stem.push({ line: kept, gap: this.#gap && block.stem.length > 0 });
		block.last = 'stem';
		block.to = line.number;
	}

	/** Lines that are neither an option nor a field, and still say what they are. */
	#plainLine(block: Block, line: Line): boolean {
		const bare = withoutEmphasis(line);
		const kind = kindLine.exec(bare.text);
		if (kind && block.stem.length && !this.#ended) {
			const word = kind[1]!.toLowerCase();
			block.draft.kind = /^t|true/.test(word) ? 'true-false' : (kindOfWord(word) ?? block.draft.kind);
			block.to = line.number;
			return true;
		}
		const truth = /^(true|false)\s*(\*)?\.?$/i.exec(bare.text);
		if (truth && block.stem.length && block.options.length < 2 && !this.#ended) {
			const last = block.options[0];
			if (!last || /^(true|false)$/i.test(last.plain)) {
				block.options.push({
					label: '',
					style: 'plain',
					text: [escapeText(truth[1]!)],
					plain: truth[1]!,
					right: truth[2] !== undefined,
					stressed: bare.stressed,
					feedback: [],
					line: line.number
				});
				block.last = 'option';
				block.to = line.number;
				return true;
			}
		}
		const both = /^(true)\s*[/|]\s*(false)$/i.exec(bare.text);
		if (both && block.stem.length) {
			block.draft.kind = 'true-false';
			block.to = line.number;
			return true;
		}
		const pair = /^(.+?)\s*(?:={1,2}>?|->|→|⇒|::)\s*(.+)$/.exec(bare.text);
		if (
			pair &&
			block.stem.length &&
			!block.options.length &&
			!this.#ended &&
			(block.pairs.length || this.#pairNext(line))
		) {
			const at = bare.text.indexOf(pair[2]!, pair[1]!.length);
			block.pairs.push([cut(bare, 0, pair[1]!.length), cut(bare, at)]);
			block.last = 'pair';
			block.to = line.number;
			return true;
		}
		return false;
	}

	#pairNext(line: Line): boolean {
		const at = this.#lines.indexOf(line);
		const next = this.#lines.slice(at + 1).find((one) => one.text);
		const stem = plainText(this.#block!.stem.map((one) => one.line.markup).join(' '));
		return (
			/\bmatch|pair\b/i.test(stem) ||
			(next !== undefined && /^.+?\s*(?:={1,2}>?|->|→)\s*.+$/.test(next.text) && !fieldOf(next))
		);
	}

	#table(line: Line): void {
		const block = this.#block;
		const rows = line.table!;
		if (
			block &&
			block.stem.length &&
			!block.options.length &&
			rows.length > 1 &&
			rows.every((cells) => cells.length === 2 && cells[0]!.text)
		) {
			for (const [left, right] of rows) {
				const cell = (one: { text: string; markup: Markup }): Line => ({
					...line,
					table: null,
					text: one.text,
					markup: one.markup
				});
				block.pairs.push([cell(left!), cell(right!)]);
			}
			const [head] = block.pairs;
			if (head && /^(term|word|left|item|column a|a)$/i.test(head[0].text)) block.pairs.shift();
			block.last = 'pair';
			return;
		}
		const cells = rows.map((row) => `<tr>${row.map((cell) => `<td>${cell.markup}</td>`).join('')}</tr>`).join('');
		const whole: Line = {
			...line,
			table: null,
			text: rows
				.flat()
				.map((cell) => cell.text)
				.join(' '),
			markup: `<table><tbody>${cells}</tbody></table>`
		};
		if (block) block.stem.push({ line: whole, gap: true });
		else this.#before.push(whole);
	}

	#field(name: string, value: Line, line: Line, at: number): boolean {
		const block = this.#block;
		const forNext = !block || (this.#gap && this.#questionNext(at)) || this.#ended;
		if (name === 'category') {
			const path = categoryOf(value.text, [' / ', '/', ' > ', '>', ' :: ', '::', '\\']);
			if (block && !this.#gap && !this.#ended) {
				this.#blocks.at(-1)!.category = path;
				block.to = line.number;
			} else {
				this.#sticky = path;
				this.#block = block && !forNext ? block : null;
			}
			return true;
		}
		if (name === 'title') {
			if (forNext) this.#pending.title = value.text;
			else block.draft.title = value.text;
			return true;
		}
		if (!block) {
			if (name === 'points' || name === 'tags' || name === 'difficulty' || name === 'kind') {
				this.#apply(this.#pending, name, value);
				return true;
			}
			return false;
		}
		block.to = line.number;
		if (name === 'answer') {
			if (!value.text) {
				block.last = 'field';
				return true;
			}
			block.answers.push({ value: value.text, line: line.number });
			block.last = 'field';
			return true;
		}
		if (name === 'general' && block.last === 'option' && (line.indent > block.indent || this.#moreOptions(at))) {
			block.options.at(-1)!.feedback.push(value.markup);
			block.last = 'option-feedback';
			return true;
		}
		if (name === 'general' || name === 'correct' || name === 'incorrect' || name === 'partly') {
			const before = block.draft.feedback[name];
			block.draft.feedback[name] = before ? `${before} ${value.markup}` : value.markup;
			block.last = 'feedback';
			return true;
		}
		if (name === 'hint') {
			block.draft.hints.push(value.markup);
			block.last = 'field';
			return true;
		}
		this.#apply(block.draft, name, value);
		block.last = 'field';
		return true;
	}

	#apply(draft: Partial<Draft>, name: string, value: Line): void {
		if (name === 'points') draft.points = value.text;
		else if (name === 'tags') draft.tags = listOf(value.text);
		else if (name === 'difficulty') draft.difficulty = value.text;
		else if (name === 'kind') draft.kind = value.text;
		else if (name === 'language') draft.language = value.text;
		else if (name === 'shuffle') draft.shuffle = truthOf(value.text, true);
	}

	/** Whether the next thing is a question, with only fields in between. */
	#questionNext(at: number): boolean {
		for (const line of this.#lines.slice(at + 1)) {
			if (!line.text) continue;
			if (numberMark(line)) return true;
			if (!fieldOf(line)) return false;
		}
		return false;
	}

	/** Whether another option comes before anything else. */
	#moreOptions(at: number): boolean {
		const block = this.#block!;
		for (const line of this.#lines.slice(at + 1)) {
			if (!line.text) continue;
			const option = optionMark(line);
			if (
				option &&
				(option.ticked !== null ||
					placeOfLabel(option.label, false) === block.options.length ||
					placeOfLabel(option.label, true) === block.options.length)
			)
				return true;
			const field = fieldOf(line);
			// the last option's feedback, before the answer
			return (
				field?.name === 'answer' &&
				block.options.slice(0, -1).every((one) => one.feedback.length > 0) &&
				block.options.length > 1
			);
		}
		return false;
	}

	/** A line that runs on from what was read last, or that belongs to nothing. */
	#runOn(block: Block, line: Line, at: number): void {
		const text = withoutEmphasis(line);
		if (this.#ended) {
			this.#before.push(line);
			return;
		}
		const newBlock =
			this.#gap &&
			block.stem.length > 0 &&
			(block.options.length > 0 || block.answers.length > 0 || block.pairs.length > 0);
		if (newBlock) {
			if (this.#optionsFollow(at) || /\?\s*$/.test(text.text)) {
				this.#start(block.number, false, block.style, line);
				this.#note(
					'no-number',
					`It has no number (line ${line.number}); it was read as a question of its own.`,
					'doubtful'
				);
				this.#stem(this.#block!, text);
				return;
			}
			this.#before.push(line);
			this.#ended = !this.#moreOptions(at);
			return;
		}
		if (block.last === 'option') {
			const option = block.options.at(-1)!;
			option.text.push(text.markup);
			option.plain += ` ${text.text}`;
		} else if (block.last === 'option-feedback') block.options.at(-1)!.feedback.push(text.markup);
		else if (block.last === 'feedback')
			block.draft.feedback.general = `${block.draft.feedback.general ?? ''} ${text.markup}`.trim();
		else if (block.last === 'pair') {
			const pair = block.pairs.at(-1)!;
			pair[1] = { ...pair[1], text: `${pair[1].text} ${text.text}`, markup: `${pair[1].markup} ${text.markup}` };
		} else if (block.last === 'field' && block.stem.length && !block.answers.length && !this.#gap)
			this.#before.push(line);
		else this.#stem(block, text);
		block.to = line.number;
	}

	#introduce(): void {
		const lines = this.#before.splice(0);
		if (!lines.length) return;
		const [first, ...rest] = lines;
		const chatty = /^(sure|of course|certainly|here (is|are)|absolutely|great|okay|ok)\b/i;
		if (first!.heading === 0 || !chatty.test(first!.text)) {
			this.#found.title = first!.text;
			this.#found.introduction = rest
				.filter((line) => !chatty.test(line.text))
				.map((line) => line.text)
				.join(' ');
		}
		this.#leftOver(lines, true);
	}

	#leftOver(lines: Line[], first = false): void {
		if (!lines.length) return;
		const text = fold(lines.map((line) => line.text).join(' '));
		const [start, end] = [lines[0]!.number, lines.at(-1)!.number];
		this.#report(
			'left-out-text',
			`${start === end ? `Line ${start}` : `Lines ${start} to ${end}`} ${first ? 'in front of the first question were read as the title and introduction, and are' : 'belong to no question and were'} left out: “${beginning(text, 160)}”.`,
			start
		);
	}

	#applyKeys(): void {
		this.#leftOver(this.#before.splice(0));
		let from = 0;
		for (const { number, value, line } of this.#keys) {
			const after = this.#blocks.findIndex(({ block }, at) => at >= from && block.numbered && block.number === number);
			const at =
				after >= 0
					? after
					: this.#blocks.findIndex(({ block }) => block.numbered && block.number === number && block.listed === null);
			if (at < 0) {
				this.#report(
					'key-without-question',
					`The answer list says “${number}. ${value}” (line ${line}), and there is no question ${number}.`,
					line,
					'doubtful'
				);
				continue;
			}
			this.#blocks[at]!.block.listed = value;
			from = at + 1;
		}
	}

	#finish(block: Block, category: string[]): void {
		const { draft } = block;
		const stems = block.stem.map((one) => one.line);
		const rich = stems.some((line) => /<(img|math|object|table)\b/.test(line.markup));
		const paragraphs: Markup[] = [];
		for (const { line, gap } of block.stem) {
			if ((gap || /^<table/.test(line.markup)) && paragraphs.length) paragraphs.push(line.markup);
			else if (paragraphs.length) paragraphs.push(`${paragraphs.pop()!} ${line.markup}`);
			else paragraphs.push(line.markup);
		}
		draft.stem =
			paragraphs.length < 2 && !rich
				? (paragraphs[0] ?? '')
				: paragraphs.length < 2
					? paragraphs[0]!
					: paragraphs.map((one) => (one.startsWith('<table') ? one : `<p>${one}</p>`)).join('');
		draft.category = category;
		const marked = block.options.some((option) => option.right);
		const some = block.options.filter((option) => option.stressed).length;
		const byStress = !marked && some > 0 && some < block.options.length;
		draft.options = block.options.map((option) => ({
			text: option.text
				.filter(Boolean)
				.join(' ')
				.replace(byStress || option.stressed ? /^<(b|u|strong|em|i|mark)>([\s\S]*)<\/\1>$/ : /^$/, '$2'),
			credit: null,
			right: byStress ? option.stressed : option.right,
			...(option.feedback.length ? { feedback: option.feedback.join(' ') } : {})
		}));
		if (draft.kind !== null && kindOfWord(draft.kind) === 'ordering' && draft.options.length) {
			draft.order = draft.options.map((option) => option.text);
			draft.options = [];
		}
		draft.pairs = block.pairs.map(([left, right]): [Markup, Markup] => [left.markup, right.markup]);
		const given = [...new Set(block.answers.map((one) => fold(one.value)))];
		if (block.listed !== null && !given.includes(fold(block.listed))) given.push(fold(block.listed));
		const keyLists = given.map((value) => keysOf(value, draft));
		const [first, ...others] = keyLists;
		if (first) draft.keys = first;
		else if (draft.options.length || draft.kind)
			draft.keys = draft.options.some((option) => option.right) || !draft.options.length ? null : [];
		const differing = draft.options.length
			? others.filter((one) => one.join('\n').toLowerCase() !== first!.join('\n').toLowerCase())
			: [];
		if (!draft.options.length && others.length) draft.keys = keyLists.flat();
		if (
			draft.options.length &&
			!block.boxed &&
			first &&
			first.length > 1 &&
			draft.kind === null &&
			draft.options.length > 2
		)
			draft.kind = 'multiple-response';
		if (
			draft.kind === 'true-false' &&
			draft.options.length &&
			!/^(true|false)$/i.test(plainText(draft.options[0]!.text))
		)
			draft.kind = null;
		const { question, reports } = assemble(draft, {
			keyForms: ['letter', 'text', 'truth', 'answer'],
			identifier: '',
			file: this.#file,
			line: block.from,
			endLine: block.to,
			format: this.#format
		});
		const place = { file: this.#file, line: block.from };
		if (differing.length && 'options' in question)
			reports.push({
				rule: 'contradictory-key',
				severity: 'broken',
				message: `Two keys disagree: ${given.map((value) => `“${value}”`).join(' and ')}. Neither was taken; mark the right one.`,
				place
			});
		const settled: Question =
			differing.length && 'options' in question
				? { ...question, options: question.options.map((option) => ({ ...option, credit: 0 })) }
				: question;
		if (byStress)
			reports.push({
				rule: 'guessed-key',
				severity: 'untidy',
				message: 'The key was told from what stands out among the options (bold, marked or coloured). Look at it once.',
				place
			});
		for (const note of block.notes) reports.push({ ...note, place });
		this.#found.questions.push({ question: settled, reports, from: block.from, to: block.to });
	}
}

/** The answers that one text names: several letters for options, and else the parts between slashes and semicolons. */
function keysOf(value: string, draft: Draft): string[] {
	const plain = value.replace(/\.$/, '').trim();
	if (draft.options.length) {
		const letters = /^(?:both\s+)?\(?[A-Za-z]\)?(?:\s*(?:,|;|&|\/|\+|\band\b|\s)\s*\(?[A-Za-z]\)?)*$/.test(plain);
		if (letters && !draft.options.some((option) => plainText(option.text).toLowerCase() === plain.toLowerCase()))
			return plain
				.replace(/^both\s+/i, '')
				.split(/\s*(?:,|;|&|\/|\+|\band\b|\s)\s*/i)
				.map((one) => one.replace(/[()]/g, ''))
				.filter(Boolean);
		const same = draft.options.some((option) => plainText(option.text).toLowerCase() === plain.toLowerCase());
		if (same) return [plain];
		const lettered = /^\(?[A-Za-z][).:]\s+\S/.test(plain) ? [plain] : null;
		if (lettered) return lettered;
		return plain.split(/\s*;\s*|\s+\/\s+/).filter(Boolean);
	}
	if (numberAnswer(plain)) return [plain];
	return value
		.split(/\s+\/\s+|\s*;\s*|\s+\|\s+/)
		.map((one) => one.trim())
		.filter(Boolean);
}

/** The numbers with their answers in a line of a list of answers: "1. A   2. C". */
function keyEntries(text: string): { number: number; value: string }[] {
	const found = [
		...text.matchAll(/(?:^|\s{1,}|[,;|]\s*)(?:q(?:uestion)?\s*)?(\d{1,4})\s*(?:[.):]|\s?[-–=]\s?|\s)\s*/gi)
	];
	if (!found.length || found[0]!.index !== 0) return [];
	const starts = found.filter((one, at) => at === 0 || isNextKey(text, found[0]!, one));
	return starts.flatMap((one, at) => {
		const from = one.index + one[0].length;
		const end = starts[at + 1]?.index ?? text.length;
		const value = text
			.slice(from, end)
			.replace(/[,;|]\s*$/, '')
			.trim();
		return value ? [{ number: Number(one[1]), value }] : [];
	});
}

/** Whether a number within a line of answers begins the next one: it has the same sign, and comes after the first. */
function isNextKey(text: string, first: RegExpMatchArray, one: RegExpMatchArray): boolean {
	const sign = (found: RegExpMatchArray) => found[0].replace(/[\s\d,;|]|q(uestion)?/gi, '');
	if (sign(first) !== sign(one)) return false;
	if (!sign(one) && !/^\s*[A-Za-z]\b/.test(text.slice(one.index! + one[0].length))) return false;
	return Number(one[1]) > Number(first[1]);
}

/** One option line taken apart where several stand on it. */
function splitInline(option: OptionMark, expected: number): OptionMark[] {
	if (option.ticked !== null || option.bullet || !option.label || option.style === 'list') return [option];
	const out: OptionMark[] = [];
	let current = option;
	let place = placeOfLabel(option.label, false) ?? expected;
	for (;;) {
		const next = String.fromCharCode((/[a-z]/.test(option.label) ? 97 : 65) + place + 1);
		const escaped =
			option.style === '()' ? `\\(${next}\\)` : option.style === '[]' ? `\\[${next}\\]` : `${next}\\${option.style}`;
		const found = /^[A-Za-z]$/.test(option.label)
			? new RegExp(`(?:\\s+|\\s*[,;|]\\s+)(\\*?)\\s*${escaped}\\s+`).exec(current.rest.text)
			: null;
		if (!found || found.index === 0) break;
		const before = cut(current.rest, 0, found.index);
		const after = cut(current.rest, found.index + found[0].length);
		out.push({ ...current, rest: before });
		current = { ...option, label: next, starred: found[1] === '*', rest: after };
		place += 1;
	}
	out.push(current);
	return out;
}
