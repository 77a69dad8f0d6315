import { array, boolean, lazy, mixed, number, object, string, type AnySchema } from 'yup';
import { keyForms, type KeyForm } from '../drafts/draft';

/** Where in a record something stands: a path, or several of which the first that is there counts. */
export type Path = string | string[];

/** What the columns of a table mean, by their headings; an entry without its own heading is named "Column N". */
export interface Columns {
	title?: string;
	stem?: string;
	kind?: string;
	/** A column for each option, or one that is split by the separator of options. */
	options?: string | string[];
	/** The column of the answer, or several, of which the first that is filled counts in each row. */
	key?: string | string[];
	points?: string;
	category?: string | string[];
	tags?: string;
	generalFeedback?: string;
	correctFeedback?: string;
	incorrectFeedback?: string;
	shuffle?: string;
	difficulty?: string;
	hint?: string;
	tolerance?: string;
	language?: string;
	identifier?: string;
	/** What is wrong, a column each, where the key holds the one that is right. */
	wrong?: string[];
	/** The columns of the credit and the feedback of each option, in the order of the options; empty where one has none. */
	optionCredits?: string[];
	optionFeedbacks?: string[];
	/** Whether the option of its row is right, in a table that has a row for each option. */
	optionRight?: string;
	/** The columns of which one is marked in each row: the first where the stem is true, the second where it is false. */
	truth?: string[];
}

/** What recipes for tables, objects and elements have in common. */
export interface Rules {
	keyForms?: KeyForm[];
	keySeparators?: string[];
	categorySeparators?: string[];
	optionSeparator?: string;
	/** The file's words for kinds, by the word. */
	kinds?: Record<string, string>;
	shuffleWords?: Record<string, boolean>;
	truthWords?: Record<string, boolean>;
	stemForm?: 'text' | 'HTML';
}

/** A recipe for one table. */
export interface TableRecipe extends Rules {
	/** The row of the headings, from 1; 0 where there is none. */
	headerRow?: number;
	columns?: Columns;
	sheet?: string;
}

/** What a user says of a file of no standard shape: which element or column is the question, the option, the key. */
export interface Recipe extends TableRecipe {
	delimiter?: string;
	sheets?: TableRecipe[];
	sheetsWithoutQuestions?: string[];
	/** The path of a question in JSON, or its XPath. */
	record?: string;
	namespaces?: Record<string, string>;
	namespace?: string;
	title?: Path;
	stem?: Path;
	kind?: Path;
	options?: Path;
	optionText?: Path;
	credit?: Path;
	creditScale?: 'percent' | 'fraction';
	optionRight?: Path;
	optionFeedback?: Path;
	/** The name by which a key speaks of an option. */
	optionIdentifier?: Path;
	/** What is wrong, where the key holds the one that is right. */
	wrong?: Path;
	accepted?: Path;
	acceptedText?: Path;
	acceptedCredit?: Path;
	numeric?: Path;
	tolerance?: Path;
	numericMin?: Path;
	numericMax?: Path;
	pairs?: Path;
	left?: Path;
	right?: Path;
	order?: Path;
	truth?: Path;
	essay?: Path | boolean;
	key?: Path;
	points?: Path;
	category?: Path;
	categoryFrom?: { ancestors: string };
	tags?: Path;
	generalFeedback?: Path;
	correctFeedback?: Path;
	incorrectFeedback?: Path;
	shuffle?: Path;
	difficulty?: Path;
	hint?: Path;
	language?: Path;
}

const path = lazy((value: unknown) => (Array.isArray(value) ? array(string().defined()) : string().strict())) as never;
const words = (of: AnySchema) =>
	lazy((value: unknown) =>
		object(
			Object.fromEntries(Object.keys(value ?? {}).map((name) => [name, of])) as Record<string, AnySchema>
		).optional()
	) as never;
const text = () => string().strict();
const rules = {
	keyForms: array(string().oneOf(keyForms).defined()),
	keySeparators: array(text().defined()),
	categorySeparators: array(text().defined()),
	optionSeparator: text(),
	kinds: words(text().defined()),
	shuffleWords: words(boolean().defined()),
	truthWords: words(boolean().defined()),
	stemForm: string().oneOf(['text', 'HTML'])
};
const columns = object({
	title: text(),
	stem: text(),
	kind: text(),
	options: path,
	key: path,
	points: text(),
	category: path,
	tags: text(),
	generalFeedback: text(),
	correctFeedback: text(),
	incorrectFeedback: text(),
	shuffle: text(),
	difficulty: text(),
	hint: text(),
	tolerance: text(),
	language: text(),
	identifier: text(),
	wrong: array(text().defined()),
	optionCredits: array(text().defined()),
	optionFeedbacks: array(text().defined()),
	optionRight: text(),
	truth: array(text().defined())
})
	.noUnknown('a recipe for columns knows no “${unknown}”')
	.default(undefined)
	.optional();
const table = { ...rules, headerRow: number().integer().min(0), columns, sheet: text() };
const paths = Object.fromEntries(
	'title stem kind options optionText credit optionRight optionFeedback optionIdentifier wrong accepted acceptedText acceptedCredit numeric tolerance numericMin numericMax pairs left right order truth key points category tags generalFeedback correctFeedback incorrectFeedback shuffle difficulty hint language'
		.split(' ')
		.map((name) => [name, path])
);
const recipe = object({
	...table,
	...paths,
	delimiter: text(),
	sheets: array(object(table)),
	sheetsWithoutQuestions: array(text().defined()),
	record: text(),
	namespaces: words(text().defined()),
	namespace: text(),
	creditScale: string().oneOf(['percent', 'fraction']),
	essay: mixed(),
	categoryFrom: object({ ancestors: text().defined() }).default(undefined).optional()
}).noUnknown('a recipe knows no “${unknown}”');

/** A recipe out of a value of unknown shape. Throws Yup's ValidationError, whose message names what is wrong. */
export function parseRecipe(value: unknown): Recipe {
	return recipe.validateSync(value, { strict: true }) as unknown as Recipe;
}
