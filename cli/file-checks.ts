import type { CheckedCategory, CheckedQuiz } from '../core/checks/check';
import { lookInto, totalOf } from '../core/draws/sheets';
import { planOfQuiz, type DrawnQuestion } from '../core/draws/sheets/of-quiz';
import { Gathering } from '../core/checks/many';
import { languagesOf } from '../core/language/detect';
import { findInQuiz, findInTree } from '../core/checks/places';
import type { Question } from '../core/kinds';
import { QuestionPlaces } from '../core/formats/question-places';
import { ruleOf } from '../core/reports/rules';
import type { FoundQuiz } from '../core/model/quiz';
import { called } from '../core/kinds/called';
import type { NamedReport } from './reading';

/** What is kept of a question until all are read: what it is called, where it stands, and what drawing needs of it. */
interface Kept extends DrawnQuestion {
	question: string;
	place: { file: string; line: number } | undefined;
}

const stepOf = (step: string) => step.replace(/~/g, '~0').replace(/\//g, '~1');

/** The checks that look at more than one question, over all that a file holds: they speak once everything is read. */
export class FileChecks {
	readonly #gathering = new Gathering({ languagesOf });
	readonly #kept: Kept[] = [];
	readonly #categories = new Map<string, CheckedCategory>();
	readonly #quizzes: FoundQuiz[] = [];
	readonly #places = new QuestionPlaces();

	/** Adds a question. */
	add(question: Question): void {
		this.#gathering.add(this.#kept.length, question, { bank: '', category: question.category });
		this.#places.add(question);
		const { identifier, category, kind, points, difficulty, tags, source } = question;
		this.#kept.push({
			question: called(question),
			identifier,
			category,
			kind,
			points,
			difficulty,
			tags,
			place: source ? { file: source.file, line: source.line } : undefined
		});
		for (let depth = 1; depth <= question.category.length; depth += 1) {
			const path = question.category.slice(0, depth);
			const key = JSON.stringify(path);
			this.#categories.set(key, { path, questions: (this.#categories.get(key)?.questions ?? 0) + 1 });
		}
	}

	/** Adds a category that the file names, whether anything stands in it or not. */
	category(path: readonly string[]): void {
		for (let depth = 1; depth <= path.length; depth += 1) {
			const key = JSON.stringify(path.slice(0, depth));
			if (!this.#categories.has(key)) this.#categories.set(key, { path: path.slice(0, depth), questions: 0 });
		}
	}

	/** Adds a quiz. */
	quiz(quiz: FoundQuiz): void {
		this.#quizzes.push(quiz);
	}

	/** What is found once everything is read. */
	*findings(): Generator<NamedReport> {
		for (const { check, id, message, words } of this.#gathering.findings()) {
			const { question, identifier, place } = this.#kept[id]!;
			yield { rule: ruleOf(check), severity: check.severity, message, words, place, question, identifier };
		}
		for (const { check, subject, message, words } of findInTree([...this.#categories.values()]))
			yield {
				rule: ruleOf(check),
				severity: check.severity,
				message,
				words,
				question: null,
				identifier: null,
				subject: subject.map(stepOf).join('/')
			};
		for (const quiz of this.#quizzes) yield* this.#ofQuiz(quiz);
	}

	*#ofQuiz(quiz: FoundQuiz): Generator<NamedReport> {
		const parts = quiz.parts.map(({ title, draw, pointsEach, questions }) => {
			const found = questions.map((named) => ({ named, number: this.#places.find(named) }));
			return {
				title,
				draw,
				pointsEach,
				shufflesOptions: false,
				// what a part names twice it gives once
				pool: [...new Set(found.flatMap(({ number }) => number ?? []))].map((number) => ({
					number,
					points: this.#kept[number - 1]!.points
				})),
				lost: found.flatMap(({ named, number }) => (number === undefined ? [named.identifier] : []))
			};
		});
		for (const { check, message, words } of findInQuiz({ title: quiz.title, parts, ...this.#drawnOf(quiz) }))
			yield {
				rule: ruleOf(check),
				severity: check.severity,
				message,
				words,
				question: null,
				identifier: null,
				subject: quiz.title,
				place: { file: quiz.source.file, line: quiz.source.line }
			};
	}

	/** What drawing finds of a quiz whose quotas, pairs and groups make more of it than its parts show. */
	#drawnOf(quiz: FoundQuiz): Pick<CheckedQuiz, 'drawn'> {
		const { never = [], together = [] } = quiz.rules ?? {};
		if (!never.length && !together.length && !quiz.parts.some(({ sheet }) => sheet?.quotas.length)) return {};
		const plan = planOfQuiz(quiz, this.#kept, (named) => this.#places.find(named));
		const looked = lookInto(plan);
		if ('conflict' in looked) return { drawn: { stops: looked.conflict.message, total: null } };
		const total = 'sampler' in looked ? totalOf(plan, looked.sampler) : null;
		return 'sampler' in looked ? { drawn: { stops: null, total: total && [total.least, total.most] } } : {};
	}
}
