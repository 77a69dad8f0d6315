import { readFile as readText } from 'node:fs/promises';
import { planOf, type Plan } from '../core/draws/sheets';
import { planOfQuiz } from '../core/draws/sheets/of-quiz';
import { lookInto, type Looked } from '../core/draws/sheets';
import { QuestionPlaces } from '../core/formats/question-places';
import { WrongSheet } from '../core/draws/sheets/wrong';
import { ContainerError } from '../core/container/container';
import { recipeOf, type Options } from './command';
import { readFile } from './reading';

/** Whether a file holds a sheet in the published form: JSON, and none of our own questions. */
async function sheetIn(file: string): Promise<unknown> {
	if (!/\.json$/i.test(file)) {
		const bytes = await readText(file);
		if (!/^\ufeff?\s*[{[]/.test(bytes.subarray(0, 200).toString('utf8'))) return undefined;
	}
	const text = (await readText(file, 'utf8')).replace(/^\ufeff/, '');
	let value: unknown;
	try {
		value = JSON.parse(text);
	} catch (error) {
		throw new ContainerError(
			'not-well-formed',
			`“${file}” is no JSON: ${(error as Error).message}. Mend it there; docs/draws.md says what a sheet looks like.`
		);
	}
	return (value as { format?: unknown } | null)?.format === undefined ? value : undefined;
}

/** The plan of the quiz of a package; where it holds several, `--quiz` names one. */
async function planInPackage(file: string, options: Options): Promise<Plan> {
	const { questions, quizzes } = await readFile(file, await recipeOf(options));
	const titles = quizzes.map(({ title }) => `“${title}”`).join(', ');
	if (!quizzes.length) throw new WrongSheet('', `“${file}” holds no quiz, and is no sheet in JSON.`);
	const named = options.quiz === undefined ? quizzes : quizzes.filter(({ title }) => title === options.quiz);
	if (named.length !== 1)
		throw new WrongSheet(
			'',
			options.quiz === undefined
				? `“${file}” holds ${quizzes.length} quizzes. Say which: --quiz TITLE, of ${titles}.`
				: `“${file}” holds ${named.length || 'no'} ${named.length > 1 ? 'quizzes' : 'quiz'} called “${options.quiz}”; there are: ${titles}.`
		);
	const places = new QuestionPlaces();
	for (const question of questions) places.add(question);
	return planOfQuiz(named[0]!, questions, (one) => places.find(one));
}

/**
 * The plan in a file: a sheet in the published form, or the quiz of a package; its warnings are printed on the side.
 * Throws WrongSheet and ContainerError with words for people.
 */
export async function lookedInto(file: string, options: Options): Promise<Looked> {
	const value = await sheetIn(file);
	const plan = value === undefined ? await planInPackage(file, options) : planOf(value);
	for (const warning of plan.warnings) process.stderr.write(`${warning}\n`);
	return lookInto(plan);
}

/** Does the work of a command; a wrong sheet ends it with 2 and words. */
export async function withSheet(work: () => Promise<number>): Promise<number> {
	try {
		return await work();
	} catch (error) {
		if (!(error instanceof WrongSheet)) throw error;
		process.stderr.write(`${error.message}\n`);
		return 2;
	}
}
