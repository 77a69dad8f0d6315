import { lookup } from '../../model/lookup';
import { readText } from '../../container/decode';
import { resolvePath } from '../../container/container';
import type { FoundPart, FoundQuestion } from '../../model/quiz';
import type { Report } from '../../reports/report';
import { markupOfNodes } from '../../markup/clean';
import { beginning, plainText } from '../../markup/text';
import { parseXml } from '../../xml/parse';
import { childOf, childrenOf, type XmlElement } from '../../xml/tree';
import type { DocumentContext } from '../format';
import { parseNumber } from '../../numbers/numbers';
import { drawOfUnits, FoundGroups, standingIn, type SectionUnits } from '../section-draw';
import type { AroundTest } from './around';
import { withNamesOfTwo } from './normalise';

const deepest = 12;
const mostWords = 300;
const quiet = { media: (address: string) => address, removed: () => undefined };
/** What tests may ask for beside their questions (QTI 2.1 information model, 10). */
const unheld = lookup<string>({
	preCondition: 'conditions on what is shown',
	branchRule: 'jumps between its questions',
	testFeedback: 'feedback on the whole',
	templateDefault: 'values for the variables of its questions',
	variableMapping: 'scores under other names'
});
/** Elements of which outcome processing consists that only adds up what the questions earn. */
const sums = new Set(['setOutcomeValue', 'sum', 'testVariables', 'lookupOutcomeValue', 'variable']);

/** Whether the outcome processing of a test only adds up the scores of its questions, or there is none. */
const addsUp = (processing: XmlElement | undefined): boolean =>
	!processing || childrenOf(processing).every((node) => sums.has(node.name) && addsUp(node));

/** A section, with the file that it stands in. */
interface Standing {
	node: XmlElement;
	file: string;
}

const isSection = ({ name }: XmlElement) => name === 'assessmentSection' || name === 'assessmentSectionRef';
const titleOf = ({ attributes }: XmlElement) => (attributes.title ?? '').trim();
const shuffles = (node: XmlElement) => childOf(node, 'ordering')?.attributes.shuffle === 'true';
const isSeen = ({ attributes }: XmlElement) => attributes.visible !== 'false';

/** Whether a section only holds questions, all of which it gives. */
const isPlain = (node: XmlElement) =>
	!childOf(node, 'selection') && !childrenOf(node).some(isSection) && childOf(node, 'assessmentItemRef') !== undefined;

/** Reads the sections of a test as parts of a quiz (QTI 2.1 information model, 10): each that holds questions is a part. */
export class TestSections {
	readonly parts: FoundPart[] = [];
	readonly groups = new FoundGroups();
	/** Whether the sections in the only section of a test come in a random order. */
	partsShuffled = false;
	/** The title of the test. */
	title = '';
	readonly #questions = new Map<XmlElement, FoundQuestion[]>();

	constructor(
		private readonly context: DocumentContext,
		private readonly told: (report: Report) => void
	) {}

	/** The root of a document of a test, with the names of 2.x; null where it is not there, or nothing can be read of it. */
	async load(file: string): Promise<XmlElement | null> {
		const { context, told } = this;
		if (!context.container.has(file)) {
			told({
				rule: 'missing-file',
				severity: 'doubtful',
				message: `The quiz in “${context.file}” refers to “${file}”, which is not in the package.`,
				place: { file: context.file }
			});
			return null;
		}
		const { text, report } = await readText(context.container, file);
		if (report) told(report);
		const { root, fault } = parseXml(text);
		if (fault)
			told({
				rule: fault.rule,
				severity: 'broken',
				message: `“${file}”, line ${fault.line}: ${fault.message}. The quiz cannot be read in full; its questions can.`,
				place: { file, line: fault.line }
			});
		return root && (root.name.startsWith('qti-') ? withNamesOfTwo(root) : root);
	}

	/** Names what a test, a part of it or a section asks for that a quiz here does not know, so that somebody can set it up by hand. */
	noteRules(node: XmlElement, file: string, around: AroundTest): void {
		const references = childrenOf(node, 'assessmentItemRef');
		const said = [node, ...references].flatMap((element) => childrenOf(element));
		const has = (name: string) => references.some((reference) => reference.attributes[name] === 'true');
		const found = [
			...Object.entries(unheld)
				.filter(([name]) => said.some((child) => child.name === name))
				.map(([, words]) => words),
			...around.unheld(said),
			...(node.attributes.navigationMode === 'linear' ? ['one question after the other without a way back'] : []),
			...(childOf(node, 'selection')?.attributes.withReplacement === 'true' ? ['questions drawn more than once'] : []),
			...(has('required') && childOf(node, 'selection') ? ['questions that are always drawn'] : []),
			...(has('fixed') && shuffles(node) ? ['questions that keep their place'] : []),
			...(addsUp(childOf(node, 'outcomeProcessing')) ? [] : ['a way of scoring that is more than a sum'])
		];
		if (!found.length) return;
		this.told({
			rule: 'quiz-rules',
			severity: 'doubtful',
			message: `“${node.attributes.title || this.title || file}” also has ${found.join(', ')}, which a quiz here does not hold. The questions are not touched by that; set it up by hand where it is needed.`,
			place: { file, line: node.line }
		});
	}

	/** Reads a section, and the sections in it; `isOnly` says that it is the only one of its test. */
	async section({ node, file }: Standing, around: AroundTest, path: string[] = [], isOnly = false): Promise<void> {
		if (path.length > deepest) return;
		const title = titleOf(node);
		const here = title ? [...path, title] : path;
		const references = childrenOf(node, 'assessmentItemRef');
		const selection = childOf(node, 'selection');
		const part: FoundPart = {
			title: title || this.title,
			path: here,
			bank: null,
			questions: [],
			draw: selection ? parseNumber(selection.attributes.select ?? '') : null,
			pointsEach: null,
			shuffle: childOf(node, 'ordering') ? shuffles(node) : null
		};
		const inner = await this.#inner({ node, file });
		const isMixed = isOnly && inner.length > 0 && !references.length && part.draw === null && !isSeen(node);
		const units = isMixed ? null : this.#units({ node, file }, inner, here);
		const drawn = units && drawOfUnits(units, part.draw);
		if (units && drawn) {
			part.questions = units.flat();
			part.draw = drawn.draw;
			this.groups.add(units);
		} else part.questions = references.flatMap((reference) => this.#question(reference, file));
		if (references.length || (units && drawn)) this.parts.push(part);
		if (isOnly && inner.length > 0 && !references.length && part.draw === null && !units)
			this.partsShuffled = part.shuffle === true;
		if (part.draw !== null && inner.length && !drawn) this.#noteDraw(part, { node, file }, inner.length);
		this.#noteWords({ node, file }, part.title, around);
		this.noteRules(node, file, around);
		for (const standing of inner)
			if (units && drawn) this.#noteGroup(standing, around);
			else await this.section(standing, around, here);
	}

	/** The sections in a section, also those that stand in a file of their own. */
	async #inner({ node, file }: Standing): Promise<Standing[]> {
		const found: Standing[] = [];
		for (const child of childrenOf(node).filter(isSection))
			if (child.name === 'assessmentSection') found.push({ node: child, file });
			else {
				const target = resolvePath(file, child.attributes.href ?? '');
				const loaded = target === null ? null : await this.load(target);
				if (loaded) found.push({ node: loaded, file: target! });
			}
		return found;
	}

	/**
	 * What a section holds, in its order, where the sections in it are groups of questions that come together: it draws of
	 * them, or mixes what is not even seen as a section (2.1, 10.5: visible; a section is kept together, and counts as one
	 * where it is drawn). Null where they are not: then they are parts of their own.
	 */
	#units({ node, file }: Standing, inner: Standing[], path: string[]): SectionUnits | null {
		const draws = childOf(node, 'selection') !== undefined;
		const mixes = shuffles(node) && inner.every((standing) => !isSeen(standing.node));
		if (!inner.length || !(draws || mixes) || !inner.every((standing) => isPlain(standing.node))) return null;
		const left = [...inner];
		const units = childrenOf(node).flatMap((child): SectionUnits => {
			if (child.name === 'assessmentItemRef') return [this.#question(child, file)];
			if (!isSection(child)) return [];
			const standing = left.shift();
			if (!standing) return [];
			const questions = childrenOf(standing.node, 'assessmentItemRef').flatMap((reference) =>
				this.#question(reference, standing.file)
			);
			const title = titleOf(standing.node);
			return [isSeen(standing.node) && title ? standingIn(questions, [...path, title]) : questions];
		});
		return units.filter((unit) => unit.length);
	}

	/** The question that an element refers to, or none where it is not there, which is told once. */
	#question(reference: XmlElement, file: string): FoundQuestion[] {
		const known = this.#questions.get(reference) ?? this.#look(reference, file);
		this.#questions.set(reference, known);
		return known;
	}

	#look(reference: XmlElement, file: string): FoundQuestion[] {
		const address = reference.attributes.href ?? '';
		const resolved = resolvePath(file, address);
		const found = resolved === null ? null : this.context.container.find(resolved);
		const { identifier = '' } = reference.attributes;
		if (found !== null) {
			const weight = parseNumber(childOf(reference, 'weight')?.attributes.value ?? '');
			return [{ identifier, file: found, weight }];
		}
		this.told({
			rule: 'missing-question',
			severity: 'broken',
			message: `The quiz refers to the question “${identifier || address}” in “${resolved ?? address}”, which is not in the package. The quiz was read without it; ask for the question, or put another in its place.`,
			place: { file, line: reference.line }
		});
		return [];
	}

	#noteDraw(part: FoundPart, { node, file }: Standing, inner: number): void {
		this.told({
			rule: 'quiz-rules',
			severity: 'doubtful',
			message: `“${part.title}” draws ${part.draw} of ${part.questions.length + inner} things, ${inner} of which ${inner === 1 ? 'is a section' : 'are sections'}. That can be held only where the sections are of one size and give all that is in them: each section became a part of its own with all that it holds. Set up by hand how many are drawn.`,
			place: { file, line: node.line }
		});
	}

	/** Names what a section has that became a group, and that a group does not hold. */
	#noteGroup({ node, file }: Standing, around: AroundTest): void {
		this.#noteWords({ node, file }, titleOf(node), around);
		this.noteRules(node, file, around);
		const references = childrenOf(node, 'assessmentItemRef').length;
		if (!shuffles(node) || references < 2) return;
		this.told({
			rule: 'quiz-rules',
			severity: 'untidy',
			message: `The ${references} questions of “${titleOf(node) || this.title}” come together, and in a random order among themselves. Here they come together in the order of the file.`,
			place: { file, line: node.line }
		});
	}

	#noteWords({ node, file }: Standing, title: string, around: AroundTest): void {
		for (const rubric of childrenOf(node, 'rubricBlock')) {
			const words = beginning(plainText(markupOfNodes(rubric.children, quiet)), mostWords);
			if (!words || around.takeWords(rubric, title)) continue;
			this.told({
				rule: 'words-of-section',
				severity: 'doubtful',
				message: `The part “${title}” of the quiz has words of its own${rubric.attributes.view ? ` for the ${rubric.attributes.view}` : ''}: “${words}”. They are part of no question and were not taken along; where students need them, put them into the stems.`,
				place: { file, line: rubric.line }
			});
		}
	}
}
