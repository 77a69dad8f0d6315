import type { ReaderRule } from '../../reports/rules';
import { fold, beginning } from '../../markup/text';
import type { Question } from '../../kinds';
import type { Report } from '../../reports/report';
import { escapeText } from '../../xml/serialise';
import { blankRun, kindOfWord, type Draft } from '../assemble';
import { categoryOf } from '../table/cells';
import { Ahead, separatorLine } from './ahead';
import {
	emptyBlock,
	isOpen,
	note,
	ofNoSection,
	othersHaveFeedback,
	stemText,
	type Block,
	type OfSection
} from './block';
import { joinColumns, type Placed } from './columns';
import { pointsInBrackets, takes, withoutBrackets } from './brackets';
import { applyField, feedbackOfOption, reasonUnderAnswer, unknownField } from './fields';
import { finish } from './finish';
import { frontMatter } from './front-matter';
import { giveAnswers, keyEntries, keyHeading, type ListedAnswer } from './keys';
import type { Line } from './lines';
import { readMarkdown, unfold, withoutStress } from './markdown';
import { joinLabels, signNumbers } from './loose';
import { cut, fieldOf, numberMark, optionMark, placeOfLabel, type NumberMark } from './marks';
import { takesOption } from './option-lines';
import { addOptions, optionsBehindStem, withoutAnswer } from './options';
import { readQuestionTable } from './question-table';
import { sectionWords } from './sections';
import { linesOfStatements } from './statement-table';
import { answersOfTable, linesOfForm, optionsOfTable, pairsOfTable, tableInText } from './tables';
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
/** A model answer of so many words is one to be read by a person, and not to be matched letter by letter. */
const fewestModelWords = 5;
/** A short line without the sign that ends a sentence or a question, as headings are. */
const sectionLike = /^.{1,80}[^?.!…_]$/;
/** A heading of answers with the answers behind it, on one line. */
const keyLine = /^(?:the\s+)?(?:answer\s*key|answers|keys?|solutions?|correct answers)\s*[:–-]\s*(\S.*)$/i;
const kindLine =
	/^[[(<]?\s*(essay|short answer|numeric|numerical|matching|true\s*[/|]?\s*(?:or)?\s*false|t\s*\/\s*f|multiple choice|multiple response|file upload|ordering|fill in the blanks?|information)(?:\s+question)?\s*[\])>]?\s*:?$/i;
/** The kind in front of the stem: "Short answer: Name …". A stem that says "True or false:" keeps it, since students read it. */
const kindLabel =
	/^(essay|short answer|numeric(?:al)?|matching|multiple choice|multiple (?:response|answers?|select)|file upload|ordering)(?:\s+question)?\s*(?::|\s[-–—])\s+(?=\S)/i;

const essayLine = /^essay\W*$/i;

const kindOf = (word: string) => (/^t/i.test(word) ? 'true-false' : kindOfWord(word));

const emptyText = (): TextFound => ({ title: '', introduction: '', questions: [], reports: [] });

/** The report that a list of answers names a question that is not there. `line` is the line of the entry. */
export function keyWithoutQuestion(file: string, number: number, value: string, line: number): Report {
	return {
		rule: 'key-without-question',
		severity: 'doubtful',
		message: `The answer list says “${number}. ${value}” (line ${line}), and there is no question ${number}.`,
		place: { file, line }
	};
}

/** Reads marked text: one lenient grammar over what people write. It never throws; what is not understood is reported. */
export function readMarkedText(lines: Line[], file: string, format: string): TextFound {
	return new TextReader(file, format).read(lines);
}

/**
 * Reads a text, whole or in parts. A text in parts has to be parted between two questions, and gives the questions of a
 * part but the last one, which may go on; what headings and sections say holds on from part to part.
 */
export class TextReader {
	#lines: Line[] = [];
	#ahead = new Ahead([]);
	readonly #file: string;
	readonly #format: string;
	#found: TextFound = emptyText();
	#blocks: Placed[] = [];
	/** Questions that are whole already, each with how many blocks stand in front of it. */
	#ready: { after: number; found: TextFound['questions'][number] }[] = [];
	/** A question has begun. */
	#begun = false;
	#started = false;
	/** The last of the numbers without a sign that count on through the text. */
	#unsigned = 0;
	/** Totals of sections that it was said of that nothing tells how they are shared. */
	readonly #told = new Set<OfSection>();
	readonly #headings: { level: number; title: string }[] = [];
	#sticky: string[] = [];
	#block: Block | null = null;
	#before: Line[] = [];
	#pending: Partial<Draft> = {};
	/** The points that are said of all questions, in front of the first. */
	#overall: string | null = null;
	/** What the section at hand says of each of its questions. */
	#each: OfSection = ofNoSection();
	#gap = true;
	#inKey = false;
	#keys: ListedAnswer[] = [];
	#ended = false;

	constructor(file: string, format: string) {
		this.#file = file;
		this.#format = format;
	}

	/** What a whole text holds. */
	read(lines: Line[]): TextFound {
		this.#take(lines, Infinity);
		this.#close();
		const blocks = this.#blocks.map((one) => one.block);
		for (const answer of giveAnswers(this.#keys, blocks)) this.#unknownKey(answer);
		return this.#give(blocks.length, this.#ready.length === 0);
	}

	/**
	 * What one part of a text holds; its lines from the one with the number `until` on are only looked at, and come again in
	 * front of the next part. `keys` gives what the list of answers of the text says of its questions, in their order.
	 */
	part(lines: Line[], until: number, keys: (block: Block) => void): TextFound {
		this.#take(lines, until);
		const whole = until === Infinity;
		if (whole) this.#close();
		const count = whole ? this.#blocks.length : Math.max(0, this.#blocks.length - 1);
		for (const { block } of this.#blocks.slice(0, count)) keys(block);
		return this.#give(count, false);
	}

	/** The entries of the list of answers that were read since this was last asked for. */
	listed(): ListedAnswer[] {
		return this.#keys.splice(0);
	}

	/** Says of an entry of a list of answers that no question has its number. */
	#unknownKey({ number, value, line }: ListedAnswer): void {
		this.#found.reports.push(keyWithoutQuestion(this.#file, number, value, line));
	}

	#take(given: Line[], until: number): void {
		const signed = signNumbers(readMarkdown(unfold(given)), this.#unsigned, until);
		this.#unsigned = signed.last;
		this.#lines = joinLabels(signed.lines);
		this.#ahead = new Ahead(this.#lines, this.#started ? this.#ahead : null);
		let start = 0;
		if (!this.#started) {
			const front = frontMatter(this.#lines);
			start = front.length;
			this.#before.push(...front.before);
			this.#started = true;
		}
		this.#lines.forEach((line, at) => {
			if (at >= start && line.number < until) this.#line(line, at);
		});
	}

	#close(): void {
		if (!this.#begun) this.#introduce();
		this.#leftOver(this.#before.splice(0));
	}

	/** Gives the first so many of the blocks as questions, and forgets them. `joins`: questions in two columns are put together. */
	#give(count: number, joins: boolean): TextFound {
		const given = this.#blocks.slice(0, count);
		const blocks = given.map((one) => one.block);
		pointsInBrackets(blocks);
		this.#shareTotals(blocks);
		let at = 0;
		const ready = (before: number) => {
			while (at < this.#ready.length && this.#ready[at]!.after <= before)
				this.#found.questions.push(this.#ready[at++]!.found);
		};
		(joins ? joinColumns(given) : given).forEach(({ block, category }, place) => {
			ready(place);
			this.#found.questions.push({
				...finish(block, category, this.#file, this.#format),
				from: block.from,
				to: block.to
			});
		});
		ready(count);
		this.#blocks = this.#blocks.slice(count);
		this.#ready = this.#ready.slice(at).map((one) => ({ ...one, after: one.after - count }));
		const found = this.#found;
		this.#found = emptyText();
		return found;
	}

	#report(
		rule: ReaderRule,
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
			const last = this.#block ?? this.#blocks.at(-1)?.block;
			const next = (last?.number ?? 0) + 1;
			const form = this.#inKey ? null : (linesOfForm(line, next) ?? linesOfStatements(line, next));
			if (form) {
				this.#gap = true;
				for (const one of form) this.#line(one, at);
				return;
			}
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
		if (keyHeading.test(line.text) && (this.#gap || this.#blocks.length > 1) && this.#ahead.answersFollow(at)) {
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
		if (block && block.awaited >= 0 && this.#awaitedAnswer(block, line, at)) return;
		const option = optionMark(line) ?? this.#ahead.bareLetter(line, at);
		const question = numberMark(line);
		if (
			option &&
			block &&
			takesOption(block, option, { line, at, ahead: this.#ahead, gap: this.#gap, alsoQuestion: question !== null })
		) {
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
		const section = sectionWords(line.text).begins && !(isOpen(block) && essayLine.test(line.text));
		if (section && (this.#gap || line.stressed) && this.#ahead.questionFollows(at)) {
			this.#before.push(line);
			this.#ended = true;
			return;
		}
		if (feedbackOfOption(block, line) || this.#plainLine(block, line, at)) return;
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
		const asked = this.#ahead.next(at);
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

	/** The answer below a line that only says that it comes, also in several parts where there are as many blanks. */
	#awaitedAnswer(block: Block, line: Line, at: number): boolean {
		const part = block.awaited;
		const counted = numberMark(line);
		const blanks = stemText(block).match(blankRun)?.length ?? 0;
		block.awaited = -1;
		if (counted && blanks > 1 && part < blanks && counted.number === part + 1) {
			const before = block.answers.pop()?.value;
			block.answers.push({ value: before ? `${before}; ${counted.rest.text}` : counted.rest.text, line: line.number });
			block.awaited = part + 1;
		} else if (
			part > 0 ||
			fieldOf(line) ||
			line.heading !== null ||
			(counted && this.#startsQuestion(counted, line, at))
		)
			return false;
		else block.answers.push({ value: line.text, line: line.number });
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

	/** Whether the question at hand has numbered answers of its own: things to match, or several blanks. */
	#answersWithin(): boolean {
		const block = this.#block;
		if (!block) return false;
		const blanks = stemText(block).match(blankRun)?.length ?? 0;
		const counted = !block.answers.length && block.options.some((one) => /^\d/.test(one.label));
		return counted || block.statements.length > 0 || block.pairs.length > 0 || blanks > 1;
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
		if (asQuestion && (/^q/i.test(title) || this.#ahead.headingsAsk(level))) {
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
		if (begins) {
			const total = said.total === null ? null : { points: said.total, line };
			this.#each = { points: total ? null : this.#overall, total, trueFalse: said.trueFalse };
		}
		if (said.points === null) return;
		if (!begins && !this.#begun) this.#overall = said.points;
		this.#each = { ...this.#each, points: said.points };
		this.#report(
			'points-each',
			`“${beginning(text, 80)}” was taken to say that each question below it is worth ${said.points}, where it says nothing else.`,
			line.number
		);
	}

	/** Gives the points of a section to its only question; of several, it is said that nothing tells how they are shared. */
	#shareTotals(blocks: Block[]): void {
		for (const section of new Set(blocks.map((block) => block.each))) {
			const own = blocks.filter((block) => block.each === section && block.draft.points === null);
			if (!section.total || section.points !== null || !own.length || this.#told.has(section)) continue;
			const { points, line } = section.total;
			const open = section === this.#each && this.#blocks.length > blocks.length;
			if (own.length > 1 || open) this.#told.add(section);
			if (own.length === 1 && !open) own[0]!.draft.points = String(points);
			else
				this.#report(
					'points-of-section',
					`“${beginning(line.text, 80)}” says ${points} points, and not whether each of the ${own.length} questions below it has so many or all of them together. They have none yet; set them.`,
					line.number,
					'doubtful'
				);
		}
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
			const next = this.#ahead.next(at);
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

	#start(number: number, numbered: boolean, style: string, line: Line): void {
		if (!this.#begun) this.#introduce();
		else this.#leftOver(this.#before.splice(0));
		this.#begun = true;
		if (numbered && this.#block && number !== this.#block.number + 1 && number !== 1 && this.#block.numbered)
			this.#report(
				'odd-number',
				`After question ${this.#block.number} comes question ${number} (line ${line.number}). Both were read.`,
				line.number
			);
		this.#ended = false;
		this.#block = { ...emptyBlock(number, numbered, style, line, this.#pending), each: this.#each };
		this.#pending = {};
		for (const one of line.odd ?? []) note(this.#block, one.rule, one.message);
		this.#blocks.push({ block: this.#block, category: this.#category() });
	}

	/** Options that stand behind the stem on its own line: "Which is a bend? (a) bowline (b) sheet bend". */
	#optionsBehind(block: Block, line: Line, at: number): Line {
		if (block.stem.length || /^\W*a[.)\]]/i.test(this.#ahead.next(at)?.text ?? '')) return line;
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
		if (kind && block.stem.length && !this.#ended && !(whole && this.#gap && this.#ahead.questionFollows(at))) {
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
			(block.pairs.length || block.draft.kind === 'matching' || this.#ahead.pairFollows(at, block))
		) {
			const right = bare.text.indexOf(pair[2]!, pair[1]!.length);
			block.pairs.push([cut(bare, 0, pair[1]!.length), cut(bare, right)]);
			block.last = 'pair';
			block.to = line.number;
			return true;
		}
		return false;
	}

	#table(line: Line): void {
		const block = this.#block;
		const answers = answersOfTable(line, this.#inKey);
		if (answers) {
			this.#keys.push(...answers);
			this.#block = null;
			return;
		}
		if (block && (optionsOfTable(block, line) || pairsOfTable(block, line))) return;
		const read = readQuestionTable(line, this.#category(), this.#file, this.#format);
		if (read) {
			if (!this.#begun) this.#introduce();
			this.#begun = true;
			this.#found.reports.push(...read.reports);
			for (const one of read.questions)
				this.#ready.push({ after: this.#blocks.length, found: { ...one, from: line.number, to: line.number } });
			this.#block = null;
			return;
		}
		if (block) block.stem.push({ line: tableInText(line), gap: true });
		else this.#before.push(tableInText(line));
	}

	#field(name: string, value: Line, line: Line, at: number): boolean {
		const block = this.#block;
		const forNext = !block || (this.#gap && this.#ahead.questionFollows(at)) || this.#ended;
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
			if (/_{3,}|^(?:date|class|group|score|marks?|grade)\b\s*:?/i.test(value.text)) return false;
			if (forNext && !(block && !this.#ended && this.#ahead.titlesBehind)) this.#pending.title = value.text;
			else block.draft.title = value.text;
			return true;
		}
		if (!block) {
			if (name === 'points' || name === 'tags' || name === 'difficulty' || name === 'kind') {
				applyField(this.#pending, name, value);
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
				block.awaited = block.answers.length ? -1 : 0;
				return true;
			}
			block.answers.push({ value: value.text, line: line.number });
			block.last = 'field';
			return true;
		}
		if (
			name === 'general' &&
			block.last === 'option' &&
			((line.indent > block.indent && !this.#gap) || othersHaveFeedback(block) || this.#ahead.moreOptions(at, block))
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
		applyField(block.draft, name, value);
		block.last = 'field';
		return true;
	}

	/** A line that runs on from what was read last, or that belongs to nothing. */
	#runOn(block: Block, line: Line, at: number): void {
		const text = line;
		if (this.#ended) {
			this.#before.push(line);
			return;
		}
		// a short bold line between two questions heads what comes
		if (
			this.#gap &&
			line.stressed &&
			block.stem.length > 0 &&
			sectionLike.test(line.text) &&
			this.#ahead.questionFollows(at)
		) {
			this.#before.push(line);
			this.#ended = true;
			return;
		}
		const newBlock =
			this.#gap &&
			block.stem.length > 0 &&
			(block.options.length > 0 || block.answers.length > 0 || block.pairs.length > 0);
		if (newBlock) {
			const above = sectionLike.test(line.text) && this.#ahead.questionFollows(at);
			if ((!above && this.#ahead.optionsFollow(at)) || /\?\s*$/.test(text.text)) {
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
			this.#ended = !this.#ahead.moreOptions(at, block);
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
		} else if (block.last === 'field' && !this.#gap && unknownField(block, line)) block.last = 'field';
		else if (block.last === 'field' && block.stem.length && !block.answers.length && !this.#gap)
			this.#before.push(line);
		else if (block.last === 'field' && block.answers.length && !this.#gap) reasonUnderAnswer(block, line);
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
		for (const line of lines) if (line.heading === null || line.heading === 0) this.#section(line, line.text);
		const text = fold(lines.map((line) => line.text).join(' '));
		const [start, end] = [lines[0]!.number, lines.at(-1)!.number];
		this.#report(
			'left-out-text',
			`${start === end ? `Line ${start}` : `Lines ${start} to ${end}`} ${first ? 'in front of the first question: read as the title and introduction, and' : 'of no question:'} left out: “${beginning(text, 160)}”.`,
			start
		);
	}
}
