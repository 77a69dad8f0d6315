import { fold, plainText, beginning } from '../../markup/text';
import type { Markup, Question } from '../../model/question';
import type { Report } from '../../reports/report';
import { escapeText } from '../../xml/serialise';
import { blankRun, kindOfWord, truthOf, type Draft } from '../assemble';
import { categoryOf, listOf } from '../table/cells';
import { emptyBlock, note, type Block } from './block';
import { takes, withoutBrackets } from './brackets';
import { finish } from './finish';
import { keyEntries } from './keys';
import type { Line } from './lines';
import { readMarkdown, withoutStress } from './markdown';
import { joinLabels, signNumbers } from './loose';
import { cut, fieldOf, numberMark, optionMark, placeOfLabel, type NumberMark, type OptionMark } from './marks';
import { addOptions, optionsBehindStem, withoutAnswer } from './options';
import { readQuestionTable } from './question-table';
import { sectionWords } from './sections';
import { numberWithUnit } from './units';

/** What a marked text holds. */
export interface TextFound {
	/** The title and the paragraph in front of the first question. */
	title: string;
	introduction: string;
	questions: { question: Question; reports: Report[]; from: number; to: number }[];
	/** Reports on the text as a whole. */
	reports: Report[];
}

/** What may stand right behind a number, with the question in the next line. */
const fieldsBesideNumber = new Set(['kind', 'points', 'title', 'tags', 'difficulty']);
const mostFrontMatter = 30;
/** A model answer of so many words is one to be read by a person, and not to be matched letter by letter. */
const fewestModelWords = 5;
/** A short line without the sign that ends a sentence or a question, as headings are. */
const sectionLike = /^.{1,80}[^?.!…_]$/;
const separatorLine = /^(?:[-=_*~#•.]\s*){3,}$/;
const keyHeading =
	/^(?:the\s+)?(?:answer\s*key|answers|key|keys|solutions?|correct answers|answer sheet|marking key)(?:\s*(?:&|and|with)\s*(?:explanations?|rationales?|feedback))?\s*:?$/i;
/** A heading of answers with the answers behind it, on one line. */
const keyLine = /^(?:the\s+)?(?:answer\s*key|answers|keys?|solutions?|correct answers)\s*[:–-]\s*(\S.*)$/i;
const kindLine =
	/^[[(<]?\s*(essay|short answer|numeric|numerical|matching|true\s*[/|]?\s*(?:or)?\s*false|t\s*\/\s*f|multiple choice|multiple response|file upload|ordering|fill in the blanks?|information)(?:\s+question)?\s*[\])>]?\s*:?$/i;
/** The kind in front of the stem: "Short answer: Name …". A stem that says "True or false:" keeps it, since students read it. */
const kindLabel =
	/^(essay|short answer|numeric(?:al)?|matching|multiple choice|multiple (?:response|answers?|select)|file upload|ordering)(?:\s+question)?\s*(?::|\s[-–—])\s+(?=\S)/i;

const kindOf = (word: string) => (/^t/i.test(word) ? 'true-false' : kindOfWord(word));

/** Reads marked text: one lenient grammar over what people write. It never throws; what is not understood is reported. */
export function readMarkedText(lines: Line[], file: string, format: string): TextFound {
	return new Reader(joinLabels(signNumbers(readMarkdown(lines))), file, format).read();
}

class Reader {
	readonly #lines: Line[];
	readonly #file: string;
	readonly #format: string;
	readonly #found: TextFound = { title: '', introduction: '', questions: [], reports: [] };
	readonly #blocks: { block: Block; category: string[] }[] = [];
	/** Questions that are whole already, each with how many blocks stand in front of it. */
	readonly #ready: { after: number; found: TextFound['questions'][number] }[] = [];
	readonly #headings: { level: number; title: string }[] = [];
	#sticky: string[] = [];
	#block: Block | null = null;
	#before: Line[] = [];
	#pending: Partial<Draft> = {};
	/** The points that are said of all questions, in front of the first. */
	#overall: string | null = null;
	/** What the section at hand says of each of its questions. */
	#each: { points: string | null; trueFalse: boolean } = { points: null, trueFalse: false };
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
		const start = this.#frontMatter();
		this.#lines.forEach((line, at) => {
			if (at >= start) this.#line(line, at);
		});
		if (!this.#blocks.length && !this.#ready.length) this.#introduce();
		this.#applyKeys();
		let at = 0;
		const ready = (before: number) => {
			while (at < this.#ready.length && this.#ready[at]!.after <= before)
				this.#found.questions.push(this.#ready[at++]!.found);
		};
		this.#blocks.forEach(({ block, category }, place) => {
			ready(place);
			this.#found.questions.push({
				...finish(block, category, this.#file, this.#format),
				from: block.from,
				to: block.to
			});
		});
		ready(this.#blocks.length);
		return this.#found;
	}

	/** Fields between two rules at the very beginning, as notes have them; gives the place at which the text begins. */
	#frontMatter(): number {
		const from = this.#lines.findIndex((line) => line.text);
		if (this.#lines[from]?.text !== '---') return 0;
		const length = this.#lines.slice(from + 1, from + mostFrontMatter).findIndex((line) => line.text === '---');
		const fields = this.#lines.slice(from + 1, from + 1 + length).filter((line) => line.text);
		if (length < 0 || fields.some((line) => !/^[\p{L}_-]+\s*:/u.test(line.text))) return 0;
		for (const line of fields) {
			const field = fieldOf(line);
			if (field?.name === 'title') this.#before.unshift({ ...field.value, heading: 0 });
			else this.#before.push(line);
		}
		return from + length + 2;
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
		for (const one of line.odd ?? []) note(this.#block, one.rule, one.message);
		if (this.#heading(line, at)) return;
		if (separatorLine.test(line.text)) {
			if (this.#block) this.#ended = true;
			return;
		}
		if (keyHeading.test(line.text) && (this.#gap || this.#blocks.length > 1) && this.#keyFollows(at)) {
			this.#inKey = true;
			this.#block = null;
			return;
		}
		const listed = keyLine.exec(line.text);
		if (listed && keyEntries(listed[1]!).length > 1 && !this.#answersWithin()) {
			this.#block = null;
			this.#keyLine({ ...line, text: listed[1]!, list: null });
			return;
		}
		if (this.#inKey && this.#keyLine(line)) return;
		if (this.#flashCard(line) || this.#stemLabel(line)) return;
		const block = this.#block;
		const option = optionMark(line) ?? this.#bareLetter(line, at);
		const question = numberMark(line);
		if (option && block && this.#takesOption(block, option, question !== null, line, at)) {
			if (!(this.#gap && block.options.length === 0 && block.stem.length === 0)) addOptions(block, option);
			return;
		}
		if (question && this.#startsQuestion(question, line, at)) {
			this.#inKey = false;
			this.#begin(question, line, at);
			return;
		}
		const field = fieldOf(line);
		if (field && this.#field(field.name, field.value, line, at)) return;
		if (!block) {
			this.#before.push(line);
			return;
		}
		if (this.#gap && sectionWords(line.text).begins && this.#questionNext(at)) {
			this.#before.push(line);
			this.#ended = true;
			return;
		}
		if (this.#ofOption(block, line) || this.#plainLine(block, line, at)) return;
		this.#runOn(block, line, at);
	}

	#begin(question: NumberMark, line: Line, at: number): void {
		this.#start(question.number, true, question.style, line);
		const block = this.#block!;
		if (question.answer) block.answers.push({ value: question.answer, line: line.number });
		let { rest } = question;
		if (question.bracket && !takes(question.bracket.slice(1, -1), block.draft))
			rest = { ...rest, text: `${question.bracket} ${rest.text}`, markup: `${question.bracket} ${rest.markup}` };
		const field = fieldOf(rest);
		const asked = this.#next(at);
		if (field && fieldsBesideNumber.has(field.name) && asked && !numberMark(asked) && !optionMark(asked)) {
			this.#field(field.name, field.value, rest, at);
			block.last = 'stem';
			return;
		}
		const kind = kindLine.exec(rest.text);
		if (kind && !rest.markup.includes('<')) block.draft.kind = kindOf(kind[1]!) ?? block.draft.kind;
		else if (rest.text || rest.markup) {
			rest = this.#optionsBehind(block, rest, at);
			if (rest.text || rest.markup) this.#stem(block, rest);
		}
	}

	/** "Q: …" and "A: …", without numbers. */
	#flashCard(line: Line): boolean {
		const found = /^(?:(?:bonus|extra|final)\s+)?(Q|A)(?:uestion|nswer)?\s*:\s+(?=\S)/i.exec(line.text);
		if (!found) return false;
		const block = this.#block;
		if (found[1]!.toUpperCase() === 'Q') {
			if (block?.numbered && this.#waits(block)) return false;
			this.#start((block?.number ?? this.#blocks.length) + 1, false, 'card', line);
			this.#stem(this.#block!, cut(line, found[0].length));
			return true;
		}
		if (!block || block.answers.length) return false;
		// behind options that are written in another way, "A:" is no option
		const last = block.options.at(-1);
		if (last ? block.options.length < 2 || last.style === ':' : block.style !== 'card') return false;
		block.answers.push({ value: cut(line, found[0].length).text, line: line.number });
		block.last = 'field';
		block.to = line.number;
		return true;
	}

	/** Whether a question has its number, and at most fields, but nothing that is asked yet. */
	#waits(block: Block): boolean {
		return !block.stem.length && !block.options.length && !block.answers.length && !this.#ended;
	}

	/** "Question: …", "Stem: …" below the number of a question and its fields. */
	#stemLabel(line: Line): boolean {
		const block = this.#block;
		const found = /^(?:q(?:uestion)?(?:\s+text)?|stem|prompt|statement|text)\s*:\s+(?=\S)/i.exec(line.text);
		if (!found || !block || !this.#waits(block)) return false;
		this.#stem(block, cut(line, found[0].length));
		return true;
	}

	/** An option whose letter has no sign behind it ("A   Bowline"), where the next letter, or the one before, stands so too. */
	#bareLetter(line: Line, at: number): OptionMark | null {
		const pattern = /^([A-Ha-h])\s{2,}(?=\S)/;
		const found = pattern.exec(line.text);
		if (!found || line.table) return null;
		const letter = found[1]!.charCodeAt(0);
		const near = (step: number) => {
			for (let other = at + step; ; other += step) {
				const one = this.#lines[other];
				if (!one) return false;
				if (one.text) return pattern.exec(one.text)?.[1]!.charCodeAt(0) === letter + step;
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

	/** A line that speaks of one option by its letter: "Feedback for A: …". */
	#ofOption(block: Block, line: Line): boolean {
		const found =
			/^(?:feedback|explanation|rationale)\s*(?:for|of|on)?\s*(?:option|answer|choice)?\s*\(?([A-Za-z]|\d{1,2})\)?\s*[:–—-]\s*/i.exec(
				line.text
			);
		const option =
			found && block.options.find((one) => one.label.toLowerCase() === found[1]!.toLowerCase() && one.label !== '');
		if (!option) return false;
		option.feedback.push(cut(line, found[0].length).markup);
		block.last = 'field';
		block.to = line.number;
		return true;
	}

	/** Whether the question at hand has numbered answers of its own: things to match, or several blanks. */
	#answersWithin(): boolean {
		const block = this.#block;
		if (!block) return false;
		const blanks = this.#stemText(block).match(blankRun)?.length ?? 0;
		return block.statements.length > 0 || block.pairs.length > 0 || blanks > 1;
	}

	#heading(line: Line, at: number): boolean {
		const markdown = /^(#{1,6})\s+(.*?)\s*#*$/.exec(line.text);
		const level = line.heading ?? markdown?.[1]!.length ?? null;
		if (level === null) return false;
		const title = fold(markdown ? markdown[2]! : line.text);
		if (level === 0) {
			this.#before.unshift({ ...line, heading: 0 });
			return true;
		}
		const shown: Line = markdown
			? cut(
					line,
					markdown[1]!.length,
					markdown[1]!.length + 1 + line.text.slice(markdown[1]!.length + 1).replace(/\s*#*$/, '').length
				)
			: line;
		const asQuestion = numberMark({ ...shown, heading: null, list: null });
		if (asQuestion && /^q/i.test(title)) {
			this.#begin(asQuestion, shown, at);
			return true;
		}
		if (keyHeading.test(title)) {
			this.#inKey = true;
			this.#block = null;
			return true;
		}
		if (!title) return true;
		this.#section(line, title);
		while (this.#headings.length && this.#headings.at(-1)!.level >= level) this.#headings.pop();
		this.#headings.push({ level, title });
		this.#sticky = [];
		this.#block = null;
		this.#inKey = false;
		return true;
	}

	/** Takes what a heading, or a line between questions, says of each question below it. */
	#section(line: Line, text: string): void {
		const said = sectionWords(text);
		const begins = said.begins || line.heading !== null;
		if (begins) this.#each = { points: this.#overall, trueFalse: said.trueFalse };
		if (said.points === null) return;
		if (!begins && !this.#blocks.length) this.#overall = said.points;
		this.#each.points = said.points;
		this.#report(
			'points-each',
			`“${beginning(text, 80)}” was taken to say that each question below it is worth ${said.points}, where it says nothing else.`,
			line.number
		);
	}

	/** The lines behind a place that are not empty. */
	*#after(at: number): Generator<Line> {
		for (let place = at + 1; place < this.#lines.length; place += 1)
			if (this.#lines[place]!.text) yield this.#lines[place]!;
	}

	#next(at: number): Line | undefined {
		return this.#after(at).next().value as Line | undefined;
	}

	/** Whether a list of numbers and answers comes next, and not the options of a question. */
	#keyFollows(at: number): boolean {
		const next = this.#next(at);
		return next !== undefined && keyEntries(next.text).length > 0;
	}

	#keyLine(line: Line): boolean {
		const list = line.list && line.list.kind !== 'bullet' ? `${line.list.label}. ${line.text}` : line.text;
		const entries = keyEntries(list.replace(/^[-•*]\s+/, ''));
		if (!entries.length) {
			this.#inKey = false;
			return false;
		}
		for (const entry of entries) this.#keys.push({ ...entry, line: line.number });
		return true;
	}

	#startsQuestion({ number, rest }: NumberMark, line: Line, at: number): boolean {
		const block = this.#block;
		if (!rest.text && !rest.markup && line.list === null && !/^\s*\W*(q|question|item|problem)/i.test(line.text)) {
			// a number by itself, with its question in the next line
			const next = this.#next(at);
			const last = block ?? this.#blocks.at(-1)?.block;
			return number === (last?.number ?? 0) + 1 && next !== undefined && !numberMark(next) && !fieldOf(next);
		}
		// a number at the beginning of a line that runs on, such as "12. May", is not a question
		if (block && !this.#gap && !block.options.length && block.last === 'stem' && block.numbered) {
			if (block.stem.length && number !== block.number + 1 && number !== 1 && line.indent >= block.indent)
				return number > block.number && number < block.number + 4;
		}
		return true;
	}

	/**
	 * Where a list within a question ends that begins at a line with the number 1, or -1 where it is no such list: its
	 * numbers run on from 1, and then comes the answer, or the number that the next question has.
	 */
	#listEnd(at: number, block: Block): number {
		const stem = plainText(block.stem.map((one) => one.line.markup).join(' '));
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

	#takesOption(block: Block, option: OptionMark, alsoQuestion: boolean, line: Line, at: number): boolean {
		if (option.ticked !== null) return fieldOf(option.rest)?.name !== 'answer';
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
			if (last && !/^\d+$/.test(block.options[0]!.label)) return false;
			// numbers are options where they are written in another way than those of the questions
			const { style } = option;
			const stressed = line.stressed || /^<(b|strong)>/.test(line.markup);
			const same = block.style === style && line.list === null && block.stressed === stressed;
			if (!last && same && place === 0 && block.numbered && line.indent <= block.indent)
				block.listEnd = this.#listEnd(at, block);
			if (same && line.indent <= block.indent && at > block.listEnd) return false;
			if (alsoQuestion && block.style === 'list' && line.list?.level === 0) return false;
			if (!last) return place === 0;
			return last.style === style && place === block.options.length;
		}
		if (place === null) return false;
		if (!last)
			return place === 0 || placeOfLabel(option.label, false) === 0 || option.style === 'list' || option.starred;
		if (last.style === 'box' || last.style === 'bullet') return false;
		const expected = block.options.length;
		const counted = /^\d+$|^[ivx]+$/i.test(block.options[0]!.label) && expected > 1;
		if (counted && /^a$/i.test(option.label) && !block.answers.length && !block.statements.length) {
			// what was counted in front of lettered options are statements, or things to match
			block.statements = block.options.splice(0);
			return true;
		}
		if (place === expected || placeOfLabel(option.label, false) === expected) return true;
		if (placeOfLabel(option.label, false) === 0 && this.#gap && block.answers.length) return false;
		// skipped or repeated letters in the same hand are still options
		return last.style === option.style;
	}

	#start(number: number, numbered: boolean, style: string, line: Line): void {
		if (!this.#blocks.length && !this.#ready.length) this.#introduce();
		else this.#leftOver(this.#before.splice(0));
		if (numbered && this.#block && number !== this.#block.number + 1 && number !== 1 && this.#block.numbered)
			this.#report(
				'odd-number',
				`After question ${this.#block.number} comes question ${number} (line ${line.number}). Both were read.`,
				line.number
			);
		this.#ended = false;
		this.#block = { ...emptyBlock(number, numbered, style, line, this.#pending), each: { ...this.#each } };
		this.#pending = {};
		for (const one of line.odd ?? []) note(this.#block, one.rule, one.message);
		this.#blocks.push({ block: this.#block, category: this.#category() });
	}

	/** Options that stand behind the stem on its own line: "Which is a bend? (a) bowline (b) sheet bend". */
	#optionsBehind(block: Block, line: Line, at: number): Line {
		if (block.stem.length || /^\W*a[.)\]]/i.test(this.#next(at)?.text ?? '')) return line;
		const found = optionsBehindStem(line);
		if (!found) return line;
		this.#stem(block, found.stem);
		addOptions(block, found.options);
		return cut(line, line.text.length);
	}

	#stem(block: Block, line: Line): void {
		const unlabelled = block.stem.length || !kindLabel.test(line.text) ? withoutAnswer(line, block) : line;
		let kept = withoutBrackets(unlabelled, block.draft);
		const said = /^T\s*[/|]?\s*F\b\s*[.:]?\s+(?=[A-Z“"])/.exec(kept.text);
		if (said) {
			block.draft.kind = 'true-false';
			kept = cut(kept, said[0].length);
		}
		const after = /\s+(?:T\s*\/\s*F|true\s*\/\s*false)\s*$|\s{2,}(?:T\s+F|true\s+false)\s*$/i.exec(kept.text);
		if (after) {
			block.draft.kind = 'true-false';
			kept = cut(kept, 0, after.index);
		}
		const lead = block.stem.length ? null : /^question\s*:\s+(?=\S)/i.exec(kept.text);
		if (lead) kept = cut(kept, lead[0].length);
		const labelled = block.stem.length ? null : kindLabel.exec(kept.text);
		if (labelled) {
			block.draft.kind = kindOf(labelled[1]!) ?? block.draft.kind;
			kept = cut(kept, labelled[0].length);
		}
		const written = /^_+\s*(T|F|True|False)\s*_+\s+(?=\S)/i.exec(kept.text);
		if (written && !block.stem.length) {
			block.answers.push({ value: written[1]!, line: line.number });
			kept = cut(kept, written[0].length);
		}
		if (kept.text || kept.markup) {
			const bare = withoutStress(kept.markup);
			block.stem.push({
				line: bare === null ? kept : { ...kept, markup: bare },
				gap: this.#gap && block.stem.length > 0
			});
		}
		block.last = 'stem';
		block.to = line.number;
	}

	/** Lines that are neither an option nor a field, and still say what they are. */
	#plainLine(block: Block, line: Line, at: number): boolean {
		const bare = line;
		const kind = kindLine.exec(bare.text);
		const whole = block.options.length > 0 || block.answers.length > 0 || block.pairs.length > 0;
		if (kind && block.stem.length && !this.#ended && !(whole && this.#gap && this.#questionNext(at))) {
			block.draft.kind = kindOf(kind[1]!) ?? block.draft.kind;
			block.to = line.number;
			return true;
		}
		const truth = /^(\*)?\s*(true|false)\s*(\*)?\.?$/i.exec(bare.text);
		if (truth && block.stem.length && block.options.length < 2 && !this.#ended) {
			const last = block.options[0];
			if (!last || /^(true|false)$/i.test(last.plain)) {
				block.options.push({
					label: '',
					style: 'plain',
					text: [escapeText(truth[2]!)],
					plain: truth[2]!,
					right: truth[1] !== undefined || truth[3] !== undefined,
					stressed: bare.stressed,
					feedback: [],
					line: line.number
				});
				block.last = 'option';
				block.to = line.number;
				return true;
			}
		}
		if (/^(?:answer\s+)?(?:options|choices)\s*:?$/i.test(bare.text) && block.stem.length && !block.options.length) {
			note(block, 'left-out-text', `The line “${bare.text}” was left out of the question.`);
			block.to = line.number;
			return true;
		}
		const inline = /^(?:answer\s+)?(?:options|choices)\s*:\s+(?=\S)/i.exec(bare.text);
		const listed =
			inline && block.stem.length && !block.options.length ? optionMark(cut(line, inline[0].length)) : null;
		if (listed && placeOfLabel(listed.label, false) === 0) {
			addOptions(block, listed);
			return true;
		}
		const both = /^(true)\s*[/|]\s*(false)$/i.exec(bare.text);
		if (both && block.stem.length) {
			block.draft.kind = 'true-false';
			block.to = line.number;
			return true;
		}
		const pair =
			/^(.+?)\s*(?:={1,2}>?|->|→|⇒|::)\s*(.+)$/.exec(bare.text) ??
			// a colon or a dash parts them too, where the lines before have shown that these are pairs
			(block.last === 'pair' && !this.#gap ? /^(.{1,60}?)\s+[:–—-]\s+(.+)$/.exec(bare.text) : null);
		if (
			pair &&
			(block.stem.length || block.draft.kind === 'matching') &&
			!block.options.length &&
			!this.#ended &&
			(block.pairs.length || block.draft.kind === 'matching' || this.#pairNext(at))
		) {
			const right = bare.text.indexOf(pair[2]!, pair[1]!.length);
			block.pairs.push([cut(bare, 0, pair[1]!.length), cut(bare, right)]);
			block.last = 'pair';
			block.to = line.number;
			return true;
		}
		return false;
	}

	#stemText(block: Block): string {
		return plainText(block.stem.map((one) => one.line.markup).join(' '));
	}

	#pairNext(at: number): boolean {
		const next = this.#next(at);
		return (
			/\bmatch|pair\b/i.test(this.#stemText(this.#block!)) ||
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
			rows.every((cells) => cells.length === 2 && cells[0]!.text) &&
			(!line.headed || /\b(match|pair|connect|link|assign|belong)/i.test(this.#stemText(block)))
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
			if (head && (line.headed || /^(term|word|left|item|column a|a)$/i.test(head[0].text))) block.pairs.shift();
			block.last = 'pair';
			return;
		}
		const read = readQuestionTable(line, this.#category(), this.#file, this.#format);
		if (read) {
			if (!this.#blocks.length && !this.#ready.length) this.#introduce();
			this.#found.reports.push(...read.reports);
			for (const one of read.questions)
				this.#ready.push({ after: this.#blocks.length, found: { ...one, from: line.number, to: line.number } });
			this.#block = null;
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
				block.last = 'field';
				block.to = line.number;
			} else {
				this.#sticky = path;
				this.#block = block && !forNext ? block : null;
			}
			return true;
		}
		if (name === 'title') {
			if (/_{3,}/.test(value.text)) return false;
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
		if (name === 'tolerance') {
			const tolerance = numberWithUnit(value.text)?.number;
			if (!tolerance || !('value' in tolerance)) return false;
			block.draft.tolerance = Math.abs(tolerance.value);
			block.last = 'field';
			return true;
		}
		if (name === 'order') block.draft.kind ??= 'ordering';
		if (name === 'model' && !block.options.length && value.text.split(' ').length >= fewestModelWords)
			block.draft.kind ??= 'essay';
		if (name === 'answer' || name === 'model' || name === 'order') {
			if (!value.text) {
				block.last = 'field';
				return true;
			}
			block.answers.push({ value: value.text, line: line.number });
			block.last = 'field';
			return true;
		}
		if (
			name === 'general' &&
			block.last === 'option' &&
			((line.indent > block.indent && !this.#gap) || this.#moreOptions(at))
		) {
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
		for (const line of this.#after(at)) {
			if (numberMark(line)) return true;
			if (!fieldOf(line)) return false;
		}
		return false;
	}

	/** Whether another option comes before anything else. */
	#moreOptions(at: number): boolean {
		const block = this.#block!;
		for (const line of this.#after(at)) {
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
		const text = line;
		if (this.#ended) {
			this.#before.push(line);
			return;
		}
		const newBlock =
			this.#gap &&
			block.stem.length > 0 &&
			(block.options.length > 0 || block.answers.length > 0 || block.pairs.length > 0);
		if (newBlock) {
			const above = sectionLike.test(line.text) && this.#questionNext(at);
			if ((!above && this.#optionsFollow(at)) || /\?\s*$/.test(text.text)) {
				this.#start(block.number, false, block.style, line);
				note(
					this.#block,
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
		} else if (block.last === 'field' && !this.#gap && this.#unknownField(block, line)) block.last = 'field';
		else if (block.last === 'field' && block.stem.length && !block.answers.length && !this.#gap)
			this.#before.push(line);
		else if (block.last === 'field' && block.answers.length && !this.#gap) this.#afterAnswer(block, line);
		else this.#stem(block, text);
		block.to = line.number;
	}

	/** A field that is not known here, under others that are: it is kept beside the question. */
	#unknownField(block: Block, line: Line): boolean {
		const field = /^([A-Z][\w'’ /-]{1,30}?)\s*:\s+(\S.*)$/.exec(line.text);
		if (!field) return false;
		(block.draft.metadata ??= []).push({ name: field[1]!.toLowerCase(), value: field[2]! });
		note(
			block,
			'unknown-field',
			`The line “${line.text}” says something that has no place here; it was kept beside the question.`
		);
		return true;
	}

	/** A line right under the answer that is no field: the reason. */
	#afterAnswer(block: Block, line: Line): void {
		block.draft.feedback.general = `${block.draft.feedback.general ?? ''} ${line.markup}`.trim();
		block.last = 'feedback';
		note(block, 'reason-as-feedback', `The words after the key, “${beginning(line.text, 80)}”, were read as feedback.`);
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
		for (const line of lines) if (line.heading === null || line.heading === 0) this.#section(line, line.text);
		const text = fold(lines.map((line) => line.text).join(' '));
		const [start, end] = [lines[0]!.number, lines.at(-1)!.number];
		this.#report(
			'left-out-text',
			`${start === end ? `Line ${start}` : `Lines ${start} to ${end}`} ${first ? 'in front of the first question: read as the title and introduction, and' : 'of no question:'} left out: “${beginning(text, 160)}”.`,
			start
		);
	}

	#applyKeys(): void {
		this.#leftOver(this.#before.splice(0));
		let from = 0;
		for (const { number, value, line } of this.#keys) {
			const named = (block: Block) => block.numbered && block.number === number;
			let at = from;
			while (at < this.#blocks.length && !named(this.#blocks[at]!.block)) at += 1;
			if (at === this.#blocks.length) at = this.#blocks.findIndex(({ block }) => named(block) && block.listed === null);
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
}
