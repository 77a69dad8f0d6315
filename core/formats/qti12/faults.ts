import type { ReaderRule } from '../../reports/rules';
import type { Report } from '../../reports/report';
import type { XmlElement } from '../../xml/tree';
import type { DocumentContext } from '../format';

/** What is said where a document is not well-formed: what was not read, and of which question that is, where that can be told. */
export function faultReport(
	event: { rule: ReaderRule; line: number; message: string; inside: XmlElement | null },
	context: DocumentContext
): { report: Report; question?: string } {
	const name = event.inside?.attributes.title || event.inside?.attributes.ident;
	const where = `“${context.file}”, line ${event.line}`;
	const place = { file: context.file, line: event.line };
	if (event.rule === 'bad-entity')
		return {
			report: { rule: event.rule, severity: 'untidy', message: `${where}: ${event.message}.`, place },
			...(name ? { question: name } : {})
		};
	if (event.rule === 'external-entity' || event.rule === 'entity-expansion')
		return {
			report: {
				rule: event.rule,
				severity: 'broken',
				message: `“${context.file}” was refused: ${event.message}. Nothing was fetched. Ask for a file without a document type.`,
				place
			}
		};
	const lost = name
		? `The question “${name}” is not whole and was not read; those before it were`
		: 'What stands between the questions there was passed over; the questions before it and after it were read';
	return {
		report: {
			rule: event.rule,
			severity: 'broken',
			message: `${where}: ${event.rule === 'cut-off' ? 'the file ends in the middle' : event.message}. ${lost}. Mend the file there, or ask for it again.`,
			place
		},
		...(name ? { question: name } : {})
	};
}
