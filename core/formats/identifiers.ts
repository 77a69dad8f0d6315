import { Names, Texts } from '../container/compact';
import { beginning, plainText } from '../markup/text';
import type { Question } from '../kinds';
import type { Report } from '../reports/report';

const mostSaid = 60;

/** The identifiers that questions of a package have, and how the first question of each is called. */
export class SeenIdentifiers {
	readonly #identifiers = new Names();
	readonly #titles = new Texts();

	/** Notes an identifier; gives the title of the question that had it before, or null. */
	note(identifier: string, title: () => string): string | null {
		const number = this.#identifiers.add(identifier);
		if (number < this.#titles.length) return this.#titles.at(number);
		this.#titles.push(title());
		return null;
	}
}

/** Where a question stands whose identifier is noted: a document, and all identifiers of its package. */
interface Beside {
	file: string;
	identifiers: SeenIdentifiers;
}

/** Notes the identifier of a question that was read; another question of the package with the same one is reported. */
export function noteIdentifier(question: Question, context: Beside, reports: Report[]): void {
	if (!question.identifier) return;
	const title = () => beginning(question.title || plainText(question.stem), mostSaid);
	const other = context.identifiers.note(question.identifier, title);
	if (other !== null)
		reports.push({
			rule: 'repeated-question-identifier',
			severity: 'untidy',
			message: `It has the same identifier, “${question.identifier}”, as “${other}”. Both were read, and both are kept.`,
			place: { file: context.file, line: question.source?.line ?? 1 }
		});
}
