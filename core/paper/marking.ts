import { markTyped } from '.';
import type { FormQuestion } from './form';
import { itemFigures, type ItemFigures, type MarkedPaper } from './items';

/** A line of what was typed: who, which form, and the answer to each question in the order of the paper. */
export interface TypedLine {
	student: string;
	form: string;
	answers: readonly string[];
}

/** Something that could not be read, with where: the line from 1, and the number of the question. */
export interface TypingFault {
	line: number;
	number: number | null;
	message: string;
}

/** Papers that were marked. */
export interface Marking {
	papers: MarkedPaper[];
	/** What a person still has to mark: the paper and the number of the question. */
	unmarked: { student: string; number: number }[];
	faults: TypingFault[];
	items: ItemFigures[];
}

function optionsOf(response: ReturnType<typeof markTyped>): readonly string[] | null {
	return 'wrong' in response ? null : (response.response?.options ?? null);
}

/** Marks papers by their forms. `forms` gives the questions of each, by its name in capitals. */
export function markPapers(lines: readonly TypedLine[], forms: ReadonlyMap<string, readonly FormQuestion[]>): Marking {
	const marking: Marking = { papers: [], unmarked: [], faults: [], items: [] };
	lines.forEach(({ student, form, answers }, at) => {
		const questions = forms.get(form.trim().toUpperCase());
		if (!questions) {
			const names = [...forms.keys()].join(', ');
			marking.faults.push({ line: at + 1, number: null, message: `There is no form “${form}”; there are ${names}.` });
			return;
		}
		const asked = questions.filter(({ number }) => number !== null);
		if (answers.length > asked.length && answers.slice(asked.length).some((answer) => answer.trim())) {
			marking.faults.push({
				line: at + 1,
				number: null,
				message: `It has ${answers.length} answers, and form ${form} asks ${asked.length} questions.`
			});
			return;
		}
		const paper: MarkedPaper = {
			student,
			form: form.trim().toUpperCase(),
			credits: new Map(),
			points: 0,
			outOf: 0,
			options: new Map()
		};
		for (const { id, number, question, order, points } of asked) {
			const typed = answers[number! - 1] ?? '';
			const marked = markTyped(question, typed, order);
			if ('wrong' in marked) marking.faults.push({ line: at + 1, number: number!, message: marked.wrong });
			const credit = 'wrong' in marked ? null : marked.credit;
			if (credit === null) marking.unmarked.push({ student, number: number! });
			paper.credits.set(id, credit);
			paper.points += (credit ?? 0) * points;
			paper.outOf += points;
			const options = optionsOf(marked);
			if (options) paper.options.set(id, options);
		}
		paper.points = Math.round(paper.points * 1e6) / 1e6;
		marking.papers.push(paper);
	});
	const worth = new Map([...forms.values()].flatMap((of) => of.map(({ id, points }) => [id, points] as const)));
	marking.items = itemFigures(marking.papers, (id) => worth.get(id) ?? 0);
	return marking;
}
