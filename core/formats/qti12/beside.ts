import { lookup } from '../../model/lookup';
import { beginning, plainText } from '../../markup/text';
import type { Report } from '../../reports/report';
import { trimmed, type XmlElement } from '../../xml/tree';
import type { DocumentContext } from '../format';
import { joinBlocks, materialBelow } from './material';

const mostWords = 300;

const quiet = { media: (address: string) => address, removed: () => undefined };
const saidOf = lookup<string>({
	presentation_material: 'begins with words of its own',
	rubric: 'has instructions of its own',
	assessfeedback: 'has feedback on the whole',
	sectionfeedback: 'has feedback on the whole',
	duration: 'has a time limit'
});

/** What stands in a section or an assessment itself, beside its questions, and has no place in a bank. */
export function besideQuestions(node: XmlElement, holder: string, context: DocumentContext): Report | null {
	const said = saidOf[node.name];
	if (!said) return null;
	const words = beginning(plainText(joinBlocks(materialBelow(node, quiet))) || trimmed(node), mostWords);
	if (!words) return null;
	return {
		rule: 'words-of-section',
		severity: 'doubtful',
		message: `“${holder || context.file}” ${said}, which is not part of any question: “${words}”. It was not taken along; where students need it, put it into the stems.`,
		place: { file: context.file, line: node.line }
	};
}
