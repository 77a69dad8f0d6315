import { lookup } from '../../model/lookup';
import { readText } from '../../container/decode';
import { resolvePath } from '../../container/container';
import type { FoundPart } from '../../model/quiz';
import type { Report } from '../../reports/report';
import { markupOfNodes } from '../../markup/clean';
import { beginning, plainText } from '../../markup/text';
import { parseXml } from '../../xml/stream';
import { childOf, childrenOf, type XmlElement } from '../../xml/tree';
import type { DocumentContext, DocumentReader, ReadEvent } from '../format';
import { parseNumber } from '../../numbers/numbers';
import { AroundTest } from './around';
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

async function load(
	context: DocumentContext,
	file: string,
	told: (report: Report) => void
): Promise<XmlElement | null> {
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

/** Reads an assessmentTest (QTI 2.1 information model, section 10): each section that holds items is a part. */
export const readTest: DocumentReader = async function* (context): AsyncGenerator<ReadEvent> {
	const reports: Report[] = [];
	const root = await load(context, context.file, (report) => reports.push(report));
	const parts: FoundPart[] = [];
	const around = new AroundTest(root);

	/** What a test asks for that a quiz here does not know: it is named, so that somebody can set it up by hand. */
	function noteRules(node: XmlElement, file: string): void {
		const references = childrenOf(node, 'assessmentItemRef');
		const said = [node, ...references].flatMap((one) => childrenOf(one));
		const has = (name: string) => references.some((one) => one.attributes[name] === 'true');
		const found = [
			...Object.entries(unheld)
				.filter(([name]) => said.some((child) => child.name === name))
				.map(([, words]) => words),
			...around.unheld(said),
			...(node.attributes.navigationMode === 'linear' ? ['one question after the other without a way back'] : []),
			...(childOf(node, 'selection')?.attributes.withReplacement === 'true' ? ['questions drawn more than once'] : []),
			...(has('required') && childOf(node, 'selection') ? ['questions that are always drawn'] : []),
			...(has('fixed') && childOf(node, 'ordering')?.attributes.shuffle === 'true'
				? ['questions that keep their place']
				: []),
			...(addsUp(childOf(node, 'outcomeProcessing')) ? [] : ['a way of scoring that is more than a sum'])
		];
		if (!found.length) return;
		reports.push({
			rule: 'quiz-rules',
			severity: 'doubtful',
			message: `“${(node.attributes.title || root?.attributes.title) ?? file}” also has ${found.join(', ')}, which a quiz here does not hold. The questions are not touched by that; set it up by hand where it is needed.`,
			place: { file, line: node.line }
		});
	}

	/** Whether the sections in the only section of a test come in a random order. */
	let partsShuffled = false;

	async function section(node: XmlElement, path: string[], file: string, isOnly = false): Promise<void> {
		if (path.length > deepest) return;
		const title = (node.attributes.title ?? '').trim();
		const here = title ? [...path, title] : path;
		const selection = childOf(node, 'selection');
		const ordering = childOf(node, 'ordering');
		const references = childrenOf(node, 'assessmentItemRef');
		const weights = references.map((reference) => parseNumber(childOf(reference, 'weight')?.attributes.value ?? ''));
		const part: FoundPart = {
			title: title || (root?.attributes.title ?? ''),
			path: here,
			bank: null,
			questions: references.flatMap((reference, at) => {
				const address = reference.attributes.href ?? '';
				const resolved = resolvePath(file, address);
				const found = resolved === null ? null : context.container.find(resolved);
				if (found !== null)
					return [{ identifier: reference.attributes.identifier ?? '', file: found, weight: weights[at]! }];
				reports.push({
					rule: 'missing-question',
					severity: 'broken',
					message: `The quiz refers to the question “${reference.attributes.identifier || address}” in “${resolved ?? address}”, which is not in the package. The quiz was read without it; ask for the question, or put another in its place.`,
					place: { file, line: reference.line }
				});
				return [];
			}),
			draw: selection ? parseNumber(selection.attributes.select ?? '') : null,
			pointsEach: null,
			shuffle: ordering ? ordering.attributes.shuffle === 'true' : null
		};
		if (references.length) parts.push(part);
		const inner = childrenOf(node).filter((child) => /^assessmentSection(Ref)?$/.test(child.name)).length;
		if (isOnly && inner > 0 && !references.length && part.draw === null) partsShuffled = part.shuffle === true;
		if (part.draw !== null && inner)
			reports.push({
				rule: 'quiz-rules',
				severity: 'doubtful',
				message: `“${part.title}” draws ${part.draw} of ${references.length + inner} things, ${inner} of which ${inner === 1 ? 'is a section' : 'are sections'}. A quiz here draws questions, not sections: each section became a part of its own with all that it holds. Set up by hand how many are drawn.`,
				place: { file, line: node.line }
			});
		for (const rubric of childrenOf(node, 'rubricBlock')) {
			const words = beginning(plainText(markupOfNodes(rubric.children, quiet)), mostWords);
			if (words && around.takeWords(rubric, part.title)) continue;
			if (words)
				reports.push({
					rule: 'words-of-section',
					severity: 'doubtful',
					message: `The part “${part.title}” of the quiz has words of its own${rubric.attributes.view ? ` for the ${rubric.attributes.view}` : ''}: “${words}”. They are part of no question and were not taken along; where students need them, put them into the stems.`,
					place: { file, line: rubric.line }
				});
		}
		noteRules(node, file);
		for (const child of childrenOf(node)) {
			if (child.name === 'assessmentSection') await section(child, here, file);
			else if (child.name === 'assessmentSectionRef') {
				const target = resolvePath(file, child.attributes.href ?? '');
				const loaded = target === null ? null : await load(context, target, (report) => reports.push(report));
				if (loaded) await section(loaded, here, target!);
			}
		}
	}

	if (root) {
		const holder = root.name === 'assessmentTest' ? childrenOf(root, 'testPart') : [root];
		for (const rubric of [root, ...holder].flatMap((node) =>
			node === root && holder.includes(root) ? [] : childrenOf(node, 'rubricBlock')
		))
			around.takeWords(rubric, '');
		noteRules(root, context.file);
		for (const part of holder) {
			if (part !== root) noteRules(part, context.file);
			const isOnly =
				holder.length === 1 && childrenOf(part).filter(({ name }) => /^assessmentSection/.test(name)).length === 1;
			for (const child of childrenOf(part)) {
				if (child.name === 'assessmentSection') await section(child, [], context.file, isOnly);
				else if (child.name === 'assessmentSectionRef')
					await section({ ...part, attributes: {}, children: [child] }, [], context.file);
			}
		}
	}
	for (const report of reports) yield { type: 'report', report };
	const settings = around.settings();
	if (root)
		yield {
			type: 'quiz',
			quiz: {
				...(settings ? { settings } : {}),
				...(partsShuffled ? { rules: { never: [], together: [], partsShuffled, fixedOptions: [] } } : {}),
				identifier: root.attributes.identifier ?? '',
				title: (root.attributes.title ?? '').trim() || context.file,
				parts,
				source: { file: context.file, line: root.line }
			}
		};
};
