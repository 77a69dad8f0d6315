import { plainQuestion, plainQuiz } from './plain';
import { readFile } from './reading';

/** What may be said beside the files. */
export interface Options {
	plain?: boolean;
	json?: boolean;
	to?: string;
}

/** A command: how many files it wants, and what it does. It gives the exit code. */
export interface Command {
	files: number;
	run: (files: string[], options: Options) => Promise<number>;
}

const print = (value: unknown) => process.stdout.write(`${JSON.stringify(value, null, '\t')}\n`);

const inspect: Command = {
	files: 1,
	async run([file], options) {
		const { format, questions, quizzes, reports } = await readFile(file!);
		if (options.json) print({ format, questions, quizzes, reports });
		else
			print({
				file: file!.split('/').pop(),
				questions: questions.map(plainQuestion),
				quizzes: quizzes.map(plainQuiz),
				problems: reports.map(({ rule, severity, message, question, identifier, place }) => ({ question, identifier, about: rule, severity, why: message, ...place }))
			});
		return 0;
	}
};

/** The commands by their names. */
export const commands = new Map<string, Command>([['inspect', inspect]]);
