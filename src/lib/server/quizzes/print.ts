import { formQuestions } from '$core/paper/form';
import { paperQuestion } from '$core/paper';
import type { WordForms } from '$core/paper/word/document';
import { questionsById } from '../banks/banks';
import type { Database } from '../db/pool';
import { fileChunks } from '../files/files';
import { courseFile } from '../files/uses';
import { formsAt } from './forms';
import { namedQuestions } from './pool-page';

/** Forms as they are printed, with how many of their questions are gone from the bank. */
export interface PrintedForms extends WordForms {
	id: number;
	gone: number;
}

/** How forms are printed, out of an address: papers or keys, the size of a sheet, one form alone. */
export function printAsked(url: URL): { what: 'papers' | 'keys'; paper: 'A4' | 'letter'; only: string | null } {
	return {
		what: url.searchParams.get('what') === 'keys' ? 'keys' : 'papers',
		paper: url.searchParams.get('paper') === 'letter' ? 'letter' : 'A4',
		only: url.searchParams.get('form')
	};
}

/** The forms of a quiz as they are printed; undefined where there are none such. */
export async function printedForms(
	db: Database,
	courseId: number,
	quizId: number,
	id: number,
	{ what, paper, only }: ReturnType<typeof printAsked>
): Promise<PrintedForms | undefined> {
	const forms = await formsAt(db, courseId, quizId, id);
	if (!forms) return undefined;
	const ids = Object.keys(forms.versions).map(Number);
	const questions = await questionsById(db, courseId, ids);
	const names = new Map((await namedQuestions(db, courseId, ids)).map((question) => [question.id, question]));
	return {
		id,
		title: forms.title,
		instructions: forms.instructions,
		minutes: forms.minutes,
		parts: forms.parts.map(({ title }) => title),
		what,
		paper,
		gone: ids.length - questions.size,
		forms: forms.forms
			.filter(({ name }) => !only || name === only)
			.map((form) => ({
				name: form.name,
				questions: formQuestions(form, forms, questions).map(({ question, order, ...asked }) => ({
					...asked,
					...paperQuestion(question, order),
					title: names.get(asked.id)?.title ?? '',
					stimulus: question.stimulus?.content ?? '',
					attachments: question.attachments
				}))
			}))
	};
}

/** The bytes of the pictures that forms need, by their hashes; those that are not there are left out. */
export async function picturesOf(
	db: Database,
	courseId: number,
	{ forms }: WordForms
): Promise<Map<string, Uint8Array>> {
	const hashes = new Set(
		forms.flatMap(({ questions }) =>
			questions.flatMap(({ attachments }) =>
				attachments.flatMap(({ hash, mediaType }) => (hash && mediaType.startsWith('image/') ? [hash] : []))
			)
		)
	);
	const found = await Promise.all(
		[...hashes].map(async (hash) => {
			const file = await courseFile(db, courseId, hash);
			if (!file) return [];
			const chunks: Uint8Array[] = [];
			for await (const chunk of fileChunks(db, file.id)) chunks.push(chunk);
			return [[hash, new Uint8Array(Buffer.concat(chunks))] as const];
		})
	);
	return new Map(found.flat());
}
