import type { FoundPart, FoundQuestion, FoundQuiz } from '../../model/quiz';
import type { Report } from '../../reports/report';
import type { DocumentContext } from '../format';
import { drawOfUnits, FoundGroups, standingIn, type SectionUnits } from '../section-draw';
import { drawsSections } from './selection';

/** What opens in a document around its items: an assessment, a section or an object bank. */
export interface Opened {
	name: string;
	attributes: Record<string, string>;
	line: number;
}

interface Section {
	name: string;
	/** How many of its sections an assessment draws. */
	draw: number | null;
	ident: string;
	title: string;
	/** The titles of the sections that it stands in, its own last. */
	path: string[];
	part: FoundPart | null;
	/** Parts that the section draws from further banks. */
	more: FoundPart[];
	/** What it holds, in its order: its questions, and the sections in it as groups, as far as they are plain. */
	units: SectionUnits;
	/** Parts of the sections in it. */
	inner: FoundPart[];
	/** Whether each section in it only holds questions, all of which it gives in their order; and whether one has a title. */
	isOfPlain: boolean;
	isOfTitled: boolean;
	line: number;
}

const emptyPart = {
	path: [] as string[],
	bank: null,
	questions: [] as FoundQuestion[],
	draw: null,
	pointsEach: null,
	shuffle: null
};

/** Whether a part gives all the questions that it names, in their order. */
const isPlain = ({ draw, bank, shuffle, questions }: FoundPart) =>
	draw === null && bank === null && shuffle !== true && questions.length > 0;

/** The sections, banks and assessments of a QTI 1.2 document while it is read, and the quiz that they make. */
export class Sections12 {
	readonly #open: Section[] = [];
	readonly #groups = new FoundGroups();
	/** The quiz of the assessment that is open. */
	quiz: FoundQuiz | null = null;

	constructor(private readonly context: DocumentContext) {}

	/** Opens an assessment, a section or a bank. */
	open({ name, attributes, line }: Opened): void {
		const title = (attributes.title ?? '').trim();
		const { file } = this.context;
		if (name === 'assessment')
			this.quiz = {
				identifier: attributes.ident ?? '',
				title: title || file,
				parts: [],
				source: { file, line }
			};
		const path = [...this.titles(), title].filter(Boolean);
		const part: FoundPart | null =
			this.quiz && name === 'section' ? { ...emptyPart, title: title || this.quiz.title, path, questions: [] } : null;
		this.#open.push({
			name,
			draw: null,
			ident: attributes.ident ?? '',
			title: /^root.?section$/i.test(title) ? '' : title,
			path,
			part,
			more: [],
			units: [],
			inner: [],
			isOfPlain: true,
			isOfTitled: false,
			line
		});
	}

	/** Notes how the assessment that is open draws and orders its sections. */
	mix(how: { partsShuffled: boolean; draw: number | null }, line: number): void {
		const assessment = this.#open.at(-1);
		if (!assessment || !this.quiz) return;
		if (how.partsShuffled) this.quiz.rules = { never: [], together: [], partsShuffled: true, fixedOptions: [] };
		assessment.draw = how.draw;
		assessment.line = line;
	}

	/** Closes what was opened last. Gives what is to be told of it, and the quiz where it was an assessment that has parts. */
	close(): { report: Report | null; quiz: FoundQuiz | null } {
		const closed = this.#open.pop();
		if (!closed || !this.quiz) return { report: null, quiz: null };
		if (closed.name !== 'assessment') return { report: this.#closeSection(closed), quiz: null };
		const { quiz } = this;
		this.quiz = null;
		const mixes = quiz.rules?.partsShuffled === true;
		const part: FoundPart = { ...emptyPart, title: quiz.title, draw: closed.draw, shuffle: mixes };
		const isDrawn = closed.draw !== null && this.#asUnits(closed, part);
		quiz.parts = isDrawn ? [part] : closed.inner;
		const rules = this.#groups.rules(mixes && !isDrawn);
		delete quiz.rules;
		if (rules) quiz.rules = rules;
		const report = closed.draw === null || isDrawn ? null : this.#cannotDraw(closed, quiz.title, closed.draw);
		return { report, quiz: quiz.parts.length ? quiz : null };
	}

	#cannotDraw({ line }: Section, title: string, draw: number | null): Report {
		return drawsSections(title, draw, { file: this.context.file, line });
	}

	/** Takes what a section holds as questions and groups of its part, where the sections in it are that. */
	#asUnits(section: Section, part: FoundPart): boolean {
		const isOfUnits = section.inner.length > 0 && section.isOfPlain && !section.more.length && part.bank === null;
		const drawn = isOfUnits ? drawOfUnits(section.units, part.draw) : null;
		if (!drawn) return false;
		part.draw = drawn.draw;
		part.questions = section.units.flat();
		this.#groups.add(section.units);
		return true;
	}

	#closeSection(section: Section): Report | null {
		const { part, more } = section;
		if (!part) return null;
		const hasInner = section.inner.length > 0;
		const { draw } = part;
		const isOfUnits = (draw !== null || (part.shuffle === true && !section.isOfTitled)) && this.#asUnits(section, part);
		const holds = [part, ...more].filter((own) => own.questions.length || own.bank);
		const around = this.#open.findLast((other) => other.part ?? other.name === 'assessment');
		if (around) {
			around.inner.push(...(isOfUnits ? [] : section.inner), ...holds);
			const plain = !hasInner && holds.length === 1 && isPlain(part);
			around.isOfPlain &&= plain;
			around.isOfTitled ||= section.title !== '';
			if (plain) around.units.push(section.title ? standingIn(part.questions, section.path) : part.questions);
		}
		return draw === null || isOfUnits || (holds.length && !hasInner)
			? null
			: this.#cannotDraw(section, part.title, draw);
	}

	/** The titles of the sections that are open. */
	titles(): string[] {
		return this.#open.filter(({ name, title }) => name === 'section' && title).map(({ title }) => title);
	}

	/** The title of what was opened last, or of the quiz. */
	holder(): string {
		return this.#open.at(-1)?.title || this.quiz?.title || '';
	}

	/** The quiz, where nothing in it is open. */
	holdingQuiz(): FoundQuiz | null {
		return this.quiz && this.#open.at(-1)?.name === 'assessment' ? this.quiz : null;
	}

	/** The part whose section is open, with the parts that it draws from further banks. */
	part(): { part: FoundPart; more: FoundPart[] } | null {
		const section = this.#open.findLast((other) => other.part);
		return section?.part ? { part: section.part, more: section.more } : null;
	}

	/** Puts a question into the part whose section is open, if any. */
	take(question: FoundQuestion): void {
		const section = this.#open.findLast((other) => other.part);
		section?.part?.questions.push(question);
		section?.units.push([question]);
	}

	/** The identifiers of the banks that a question stands in which is read now. */
	banks(): string[] {
		const bank = this.#open.findLast(({ name }) => name === 'objectbank' || name === 'section');
		return this.#open
			.filter((section) => section.ident && (section.name === 'objectbank' || section === bank))
			.map(({ ident }) => ident);
	}
}
