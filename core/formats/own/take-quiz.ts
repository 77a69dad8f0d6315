import { array, boolean, mixed, number, object, string, ValidationError, type Schema } from 'yup';
import type { FoundPart, FoundQuestion, FoundQuiz } from '../../model/quiz';
import { quizSettingsShape, type QuizSettings } from '../../model/quiz-settings';
import {
	carriedQuotaShape,
	conditionsShape,
	partOrders,
	renamedPart,
	renamedRules,
	type CarriedPart,
	type CarriedRules
} from '../../model/sheet';
import type { DocumentContext, ReadEvent } from '../format';
import type { TakenQuestions } from './take';

const list = () => array(number().integer().min(1).required());
const numbers = () => list().max(10_000).default([]);

const poolShape = object({
	categories: array(array(string().required()).max(60).required()).max(10_000).required(),
	withUnder: boolean().default(true),
	conditions: conditionsShape.default(undefined),
	include: numbers(),
	exclude: numbers()
});

/** What a part says beside what it draws and how many. */
const sheetShape = object({
	order: string().oneOf(partOrders).required(),
	shuffleOptions: boolean().default(true),
	pool: poolShape.nullable().default(null),
	quotas: array(carriedQuotaShape.required()).max(200).default([])
});

/** What holds for a whole sheet. */
const rulesShape = object({
	never: array(
		list()
			.length(2)
			.test('two', 'a question cannot be kept from itself', (pair) => !pair || pair[0] !== pair[1])
			.required()
	)
		.max(2000)
		.default([]),
	together: array(list().min(1).max(200).required())
		.max(1000)
		.default([])
		.test('once', 'a question stands in two groups', (groups) => new Set(groups.flat()).size === groups.flat().length),
	partsShuffled: boolean().default(false),
	fixedOptions: numbers()
});

/** What a quiz of ours says of each of its parts, whatever the value may be. */
const partShape = object({
	title: string().default(''),
	questions: mixed<unknown[]>((value): value is unknown[] => Array.isArray(value)).default([]),
	draw: number().integer().min(0).max(10_000).nullable().default(null),
	pointsEach: number().min(0).max(100_000).nullable().default(null),
	shuffle: boolean().nullable().default(null)
});

const isObject = (value: unknown): value is object => typeof value === 'object' && value !== null;

/** Reads a quiz out of our own forms, a piece at a time: what is not of the form is said, and left out of it. */
class QuizTaking {
	readonly said: string[] = [];
	readonly #taken: TakenQuestions;
	readonly #file: string;

	constructor(taken: TakenQuestions, file: string) {
		this.#taken = taken;
		this.#file = file;
	}

	question = (number: unknown): FoundQuestion | undefined => {
		const found = this.#taken.find(number);
		return found === null ? undefined : { ...found, file: this.#file, inBank: true };
	};

	/** A value by its shape; null where it is not of it, which is said under its name. */
	take<Value>(shape: Schema<Value>, value: unknown, name: string): Value | null {
		try {
			return shape.validateSync(value, { stripUnknown: true });
		} catch (error) {
			if (!(error instanceof ValidationError)) throw error;
			this.said.push(`${name}: ${error.errors[0] ?? 'is not of the form'}`);
			return null;
		}
	}

	/** A value of a part by its shape, or what it is where nothing is said. */
	field<Name extends keyof typeof partShape.fields>(part: Record<string, unknown>, name: Name, of: string) {
		const shape = partShape.fields[name] as Schema<ReturnType<typeof partShape.getDefault>[Name]>;
		return this.take(shape, part[name], `${name} of ${of}`) ?? partShape.getDefault()[name];
	}

	part(value: unknown, at: number): FoundPart {
		const part: Record<string, unknown> = isObject(value) ? { ...value } : {};
		const of = `part ${at + 1}`;
		const sheet =
			part.order === undefined
				? null
				: this.take<CarriedPart<number>>(sheetShape, value, `what ${of} says of its sheet`);
		return {
			title: this.field(part, 'title', of),
			path: [],
			bank: null,
			questions: [...new Set(this.field(part, 'questions', of) ?? [])].flatMap((number) => this.question(number) ?? []),
			draw: this.field(part, 'draw', of),
			pointsEach: this.field(part, 'pointsEach', of),
			shuffle: this.field(part, 'shuffle', of),
			...(sheet ? { sheet: renamedPart(sheet, this.question) } : {})
		};
	}

	rules(quiz: Record<string, unknown>): CarriedRules<FoundQuestion> | null {
		if (!Object.keys(rulesShape.fields).some((name) => quiz[name] !== undefined)) return null;
		const rules = this.take<CarriedRules<number>>(rulesShape, quiz, 'its rules');
		return rules && renamedRules(rules, this.question);
	}
}

/** A quiz out of our own forms, and what is not of the form, which is left out of it. */
export function* takeQuiz(value: unknown, taken: TakenQuestions, context: DocumentContext): Generator<ReadEvent> {
	const said = (message: string): ReadEvent => ({
		type: 'report',
		report: { rule: 'quiz-rules', severity: 'doubtful', message, place: { file: context.file, line: 1 } }
	});
	const quiz: Record<string, unknown> = isObject(value) ? { ...value } : {};
	const { identifier, title, parts } = quiz;
	if (typeof title !== 'string' || !Array.isArray(parts)) {
		yield said(
			`A quiz in “${context.file}” has no title or no parts, and was not read. Mend it there, or ask for the file again.`
		);
		return;
	}
	const taking = new QuizTaking(taken, context.file);
	const settings =
		quiz.settings === undefined
			? null
			: taking.take<Partial<QuizSettings>>(quizSettingsShape, quiz.settings, 'what is around it');
	const rules = taking.rules(quiz);
	const found: FoundQuiz = {
		identifier: typeof identifier === 'string' ? identifier : '',
		title,
		source: { file: context.file, line: 1 },
		parts: parts.map((part: unknown, at) => taking.part(part, at)),
		...(settings ? { settings } : {}),
		...(rules ? { rules } : {})
	};
	if (taking.said.length)
		yield said(
			`Not all of the quiz “${title}” is of the form: ${taking.said.join('; ')}. It was read without that; set it up by hand.`
		);
	yield { type: 'quiz', quiz: found };
}
