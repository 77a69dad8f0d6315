import type { Report } from '../../reports/report';
import { childrenOf, type XmlElement } from '../../xml/tree';
import type { DocumentReader, ReadEvent } from '../format';
import { AroundTest } from './around';
import { TestSections } from './sections';

/** Takes what stands around the sections of a test, and reads its sections. */
async function readSections(root: XmlElement, sections: TestSections, around: AroundTest, file: string): Promise<void> {
	const parts = root.name === 'assessmentTest' ? childrenOf(root, 'testPart') : [root];
	const holders = root.name === 'assessmentTest' ? [root, ...parts] : [];
	for (const rubric of holders.flatMap((node) => childrenOf(node, 'rubricBlock'))) around.takeWords(rubric, '');
	sections.noteRules(root, file, around);
	for (const part of parts) {
		if (part !== root) sections.noteRules(part, file, around);
		const isOnly =
			parts.length === 1 && childrenOf(part).filter(({ name }) => /^assessmentSection/.test(name)).length === 1;
		for (const node of childrenOf(part))
			if (node.name === 'assessmentSection') await sections.section({ node, file }, around, [], isOnly);
			else if (node.name === 'assessmentSectionRef')
				await sections.section({ node: { ...part, attributes: {}, children: [node] }, file }, around);
	}
}

/** Reads an assessmentTest (QTI 2.1 information model, section 10): each section that holds items is a part. */
export const readTest: DocumentReader = async function* (context): AsyncGenerator<ReadEvent> {
	const reports: Report[] = [];
	const sections = new TestSections(context, (report) => reports.push(report));
	const root = await sections.load(context.file);
	const around = new AroundTest(root);
	const title = (root?.attributes.title ?? '').trim();
	sections.title = title;
	if (root) await readSections(root, sections, around, context.file);
	for (const report of reports) yield { type: 'report', report };
	if (!root) return;
	const settings = around.settings();
	const rules = sections.groups.rules(sections.partsShuffled);
	yield {
		type: 'quiz',
		quiz: {
			...(settings ? { settings } : {}),
			...(rules ? { rules } : {}),
			identifier: root.attributes.identifier ?? '',
			title: title || context.file,
			parts: sections.parts,
			source: { file: context.file, line: root.line }
		}
	};
};
