import Papa from 'papaparse';
import type { Pool } from 'mysql2/promise';
import { formQuestions } from '$core/paper/form';
import { markPapers, type TypedLine, type TypingFault } from '$core/paper/marking';
import { letterAt } from '$core/paper/letters';
import { kindOf } from '$core/kinds';
import { questionsById } from '../banks/banks';
import type { Changer } from '../banks/change';
import { rewrite } from '../changes/bulk';
import { beginDeed, endDeed, type Done } from '../changes/deed';
import { transaction } from '../db/pool';
import { Refused } from '../loads/refused';
import { told } from '../told';
import { formsAt } from './forms';
import { namedQuestions } from './pool-page';

/** What one student's paper earned. */
export interface MarkedStudent {
	student: string;
	form: string;
	points: number;
	outOf: number;
	/** How many answers a person still has to mark. */
	open: number;
}

/** How one question did over all papers that had it. */
export interface MarkedItem {
	id: number;
	title: string;
	papers: number;
	ease: number;
	discrimination: number | null;
	/** How often each option was marked, in the order of the bank, with whether it earns anything. */
	options: { letter: string; isRight: boolean; count: number }[];
	difficulty: string;
}

/** Papers that were marked against the forms of a quiz. */
export interface FormMarks {
	students: MarkedStudent[];
	items: MarkedItem[];
	unmarked: { student: string; number: number }[];
	faults: TypingFault[];
}

const mostPapers = 5000;

/** Lines of typed answers out of CSV: student, form, answers; a line of headings is passed over. */
export function typedLines(csv: string, forms: readonly string[]): TypedLine[] {
	const { data } = Papa.parse<string[]>(csv.trim(), { skipEmptyLines: 'greedy' });
	const isForm = (cell: string | undefined) => forms.includes((cell ?? '').trim().toUpperCase());
	const lines = data.length && !isForm(data[0]![1]) && data.some(([, form]) => isForm(form)) ? data.slice(1) : data;
	if (!lines.length) throw new Refused('There is no answer in it. Write a line for each student: name, form, answers.');
	if (lines.length > mostPapers) throw new Refused(`These are more than ${mostPapers} papers. Hand them in by parts.`);
	return lines.map(([student = '', form = '', ...answers]) => ({ student: student.trim(), form, answers }));
}

/** Marks typed answers against forms of a quiz. Throws Refused where there are no such forms, or no lines. */
export async function markForms(
	db: Pool,
	courseId: number,
	quizId: number,
	id: number,
	csv: string
): Promise<FormMarks> {
	const forms = await formsAt(db, courseId, quizId, id);
	if (!forms) throw new Refused('These forms are gone meanwhile.');
	const ids = Object.keys(forms.versions).map(Number);
	const questions = await questionsById(db, courseId, ids);
	const byName = new Map(forms.forms.map((form) => [form.name, formQuestions(form, forms, questions)]));
	const marking = markPapers(typedLines(csv, [...byName.keys()]), byName);
	const named = new Map((await namedQuestions(db, courseId, ids)).map((question) => [question.id, question]));
	return {
		students: marking.papers.map(({ student, form, points, outOf, credits }) => ({
			student,
			form,
			points,
			outOf,
			open: [...credits.values()].filter((credit) => credit === null).length
		})),
		items: marking.items.map(({ question: key, papers, ease, discrimination, options }) => {
			const question = questions.get(key)!;
			return {
				id: key,
				title: named.get(key)?.title ?? '',
				papers,
				ease,
				discrimination,
				options:
					'options' in question
						? question.options.map((option, at) => ({
								letter: letterAt(at),
								isRight: option.credit > 0,
								count: options.get(option.identifier) ?? 0
							}))
						: [],
				difficulty: named.get(key)?.difficulty ?? ''
			};
		}),
		unmarked: marking.unmarked,
		faults: marking.faults
	};
}

/**
 * Writes how hard questions were found into them, as one deed: 0 is what everybody could do, 1 what nobody could. Throws
 * Refused where none of them is there.
 */
export async function writeDifficulties(
	pool: Pool,
	{ courseId, personId }: Changer,
	found: readonly { id: number; difficulty: number }[]
): Promise<Done> {
	return transaction(pool, async (connection) => {
		const hard = new Map(found.map(({ id, difficulty }) => [id, String(Math.round(difficulty * 100) / 100)]));
		const deedId = await beginDeed(connection, {
			courseId,
			personId,
			deed: 'set the difficulty of questions',
			subject: 'as papers showed it'
		});
		const by = { deedId, personId, keepsKey: true };
		const questions = await rewrite(connection, courseId, [...hard.keys()], by, (question, id) => {
			const difficulty = hard.get(id)!;
			return kindOf(question).marks === 'nobody' || question.difficulty === difficulty
				? question
				: { ...question, difficulty };
		});
		if (!questions) throw new Refused('These questions have that difficulty already, or are gone.');
		await endDeed(connection, deedId, questions);
		return {
			deedId,
			questions,
			words: `${told(questions)} ${questions === 1 ? 'has' : 'have'} the difficulty that the papers showed.`
		};
	});
}
