import type { ReaderRule } from '../../reports/rules';
import type { Report } from '../../reports/report';
import { blankRun, type Draft } from '../drafts/draft';
import type { Question } from '../../kinds';
import { Ahead } from './ahead';
import { ofNoSection, stemText, type Block, type OfSection } from './block';
import type { Placed } from './columns';
import type { ListedAnswer } from './keys';
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

/** Nothing found yet. */
export const emptyText = (): TextFound => ({ title: '', introduction: '', questions: [], reports: [] });

/** How far the reading of a text has come: what the constructs look at, and what they change. */
export class TextState {
	lines: Line[] = [];
	ahead = new Ahead([]);
	readonly file: string;
	readonly format: string;
	found: TextFound = emptyText();
	blocks: Placed[] = [];
	/** Questions that are whole already, each with how many blocks stand in front of it. */
	ready: { after: number; found: TextFound['questions'][number] }[] = [];
	/** A question has begun. */
	begun = false;
	/** Totals of sections that it was said of that nothing tells how they are shared. */
	readonly told = new Set<OfSection>();
	readonly headings: { level: number; title: string }[] = [];
	/** The category that was said of what follows, over the headings. */
	sticky: string[] = [];
	/** The question at hand. */
	block: Block | null = null;
	/** Lines that belong to no question yet. */
	before: Line[] = [];
	/** What was said of the next question before it began. */
	pending: Partial<Draft> = {};
	/** The points that are said of all questions, in front of the first. */
	overall: string | null = null;
	/** What the section at hand says of each of its questions. */
	each: OfSection = ofNoSection();
	/** There was an empty line in front of this one. */
	gap = true;
	/** The lines are those of a list of answers. */
	inKey = false;
	keys: ListedAnswer[] = [];
	/** The question at hand has ended. */
	ended = false;

	constructor(file: string, format: string) {
		this.file = file;
		this.format = format;
	}

	/** Says something of the text as a whole. */
	report(
		rule: ReaderRule,
		message: string,
		line: number,
		severity: Report['severity'] = 'untidy',
		words?: string[]
	): void {
		this.found.reports.push({
			rule,
			severity,
			message,
			place: { file: this.file, line },
			...(words ? { words } : {})
		});
	}

	/** The category of what begins here. */
	category(): string[] {
		return this.sticky.length ? this.sticky : this.headings.map(({ title }) => title);
	}

	/** Whether a question has its number, and at most fields, but nothing that is asked yet. */
	waits(block: Block): boolean {
		return !block.stem.length && !block.options.length && !block.answers.length && !this.ended;
	}

	/** Whether the question at hand has numbered answers of its own: things to match, or several blanks. */
	answersWithin(): boolean {
		const { block } = this;
		if (!block) return false;
		const blanks = stemText(block).match(blankRun)?.length ?? 0;
		const counted = !block.answers.length && block.options.some((option) => /^\d/.test(option.label));
		return counted || block.statements.length > 0 || block.pairs.length > 0 || blanks > 1;
	}
}
