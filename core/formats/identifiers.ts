import { detached } from '../container/detached';
import { beginning, plainText } from '../markup/text';
import type { Question } from '../model/question';
import type { Report } from '../reports/report';
import type { DocumentContext } from './format';

/** Notes the identifier of a question that was read; another question of the package with the same one is reported. */
export function noteIdentifier(question: Question, context: DocumentContext, reports: Report[]): void {
	if (!question.identifier) return;
	const other = context.identifiers.get(question.identifier);
	const place = { file: context.file, line: question.source?.line ?? 1 };
	if (other !== undefined)
		reports.push({
			rule: 'repeated-question-identifier',
			severity: 'untidy',
			message: `It has the same identifier, “${question.identifier}”, as “${other}”. Both were read, and both are kept.`,
			place
		});
	else
		context.identifiers.set(
			detached(question.identifier),
			detached(beginning(question.title || plainText(question.stem), 60))
		);
}
