import fc from 'fast-check';
import { escapeText } from '../xml/serialise';
import type { Meant } from './typed-lists';

/** How a program keeps questions in JSON or XML of its own; every field is one habit. */
export interface ShapeHabits {
	form: 'json' | 'xml';
	/** Where the questions stand: at the top, under a name, or in groups with a name each. */
	holder: 'top' | 'named' | 'groups';
	holderName: string;
	stem: string;
	kind: { name: string; words: Record<Meant['kind'], string> } | null;
	options: { name: string; form: 'texts' | 'objects' | 'letters'; text: string; right: string | null };
	key: { name: string; form: 'letter' | 'index' | 'index0' | 'text' };
	answers: string;
	pairs: { name: string; left: string; right: string };
	points: string | null;
	category: string | null;
	feedback: string | null;
	identifier: string | null;
	title: string | null;
	attributes: boolean;
}

const words: Record<Meant['kind'], string>[] = [
	{
		'multiple-choice': 'single_choice',
		'multiple-response': 'multiple_answer',
		'true-false': 'true_false',
		'short-answer': 'short_answer',
		numeric: 'numeric',
		matching: 'matching',
		essay: 'essay'
	},
	{
		'multiple-choice': 'mcq',
		'multiple-response': 'multi-select',
		'true-false': 'boolean',
		'short-answer': 'text',
		numeric: 'number',
		matching: 'match',
		essay: 'open'
	},
	{
		'multiple-choice': 'MC',
		'multiple-response': 'MR',
		'true-false': 'TF',
		'short-answer': 'SA',
		numeric: 'NUM',
		matching: 'MATCH',
		essay: 'ESSAY'
	}
];

/** Any mixture of habits of keeping questions in data. */
export const anyShapeHabits: fc.Arbitrary<ShapeHabits> = fc.record({
	form: fc.constantFrom<ShapeHabits['form'][]>('json', 'xml'),
	holder: fc.constantFrom<ShapeHabits['holder'][]>('top', 'named', 'groups'),
	holderName: fc.constantFrom('questions', 'items', 'quiz', 'data'),
	stem: fc.constantFrom('question', 'stem', 'prompt', 'text', 'questionText', 'question_text', 'body'),
	kind: fc.option(
		fc.record({
			name: fc.constantFrom('type', 'kind', 'questionType', 'question_type'),
			words: fc.constantFrom(...words)
		})
	),
	options: fc.record({
		name: fc.constantFrom('options', 'choices', 'answers', 'alternatives'),
		form: fc.constantFrom<ShapeHabits['options']['form'][]>('texts', 'objects', 'letters'),
		text: fc.constantFrom('text', 'label', 'value', 'content'),
		right: fc.constantFrom('correct', 'isCorrect', 'is_correct', 'right', null)
	}),
	key: fc.record({
		name: fc.constantFrom('answer', 'correctAnswer', 'correct_answer', 'correct', 'key', 'solution'),
		form: fc.constantFrom<ShapeHabits['key']['form'][]>('letter', 'index', 'index0', 'text')
	}),
	answers: fc.constantFrom('acceptedAnswers', 'accepted', 'accepted_answers'),
	pairs: fc.record({
		name: fc.constantFrom('pairs', 'matches'),
		left: fc.constantFrom('left', 'term', 'prompt'),
		right: fc.constantFrom('right', 'definition', 'match')
	}),
	points: fc.option(fc.constantFrom('points', 'marks', 'score')),
	category: fc.option(fc.constantFrom('category', 'topic', 'section')),
	feedback: fc.option(fc.constantFrom('explanation', 'feedback', 'rationale')),
	identifier: fc.option(fc.constantFrom('id', 'identifier', 'uid')),
	title: fc.option(fc.constantFrom('title', 'name')),
	attributes: fc.boolean()
});

type Data = string | number | boolean | Data[] | { [name: string]: Data };
const letter = (at: number) => String.fromCharCode(65 + at);

function recordOf(meant: Meant, at: number, habits: ShapeHabits): Record<string, Data> {
	const { options, key } = habits;
	const record: Record<string, Data> = {};
	if (habits.identifier) record[habits.identifier] = `q-${at + 1}`;
	if (habits.title) record[habits.title] = `Harbour ${at + 1}`;
	if (habits.kind) record[habits.kind.name] = habits.kind.words[meant.kind];
	record[habits.stem] = meant.stem;
	if ('options' in meant) {
		const { form, text, right } = options;
		const marked = form === 'objects' && right !== null;
		if (form === 'letters')
			record[options.name] = Object.fromEntries(meant.options.map((one, place) => [letter(place), one.text]));
		else
			record[options.name] = meant.options.map((one): Data =>
				form === 'texts' ? one.text : { [text]: one.text, ...(right === null ? {} : { [right]: one.right }) }
			);
		const keys = meant.options.flatMap((one, place): Data[] =>
			!one.right
				? []
				: [
						form === 'letters' || key.form === 'letter'
							? letter(place)
							: key.form === 'text'
								? one.text
								: key.form === 'index'
									? place + 1
									: place
					]
		);
		if (!marked) record[key.name] = meant.kind === 'multiple-response' ? keys : keys[0]!;
	} else if (meant.kind === 'true-false') record[key.name] = meant.right;
	else if ('answers' in meant)
		if (meant.answers.length > 1) record[habits.answers] = meant.answers;
		else record[key.name] = /^\d+$/.test(meant.answers[0]!) ? Number(meant.answers[0]) : meant.answers[0]!;
	else if ('pairs' in meant)
		record[habits.pairs.name] = meant.pairs.map(([left, right]) => ({
			[habits.pairs.left]: left,
			[habits.pairs.right]: right
		}));
	if (habits.points) record[habits.points] = 2;
	if (habits.category && habits.holder !== 'groups') record[habits.category] = 'Seamanship';
	if (habits.feedback) record[habits.feedback] = 'See the handbook of the school.';
	return record;
}

const single: Record<string, string> = {
	options: 'option',
	choices: 'choice',
	answers: 'answerOption',
	alternatives: 'alternative',
	pairs: 'pair',
	matches: 'pairOf',
	questions: 'question',
	items: 'item',
	quiz: 'item',
	data: 'record',
	groups: 'group'
};

function xmlOf(name: string, data: Data, attributes: boolean): string {
	if (Array.isArray(data)) {
		const inner = single[name] ?? name;
		const list = data.map((one) => xmlOf(inner === name ? name : inner, one, attributes)).join('');
		return single[name] ? `<${name}>${list}</${name}>` : list;
	}
	if (typeof data !== 'object') return `<${name}>${escapeText(String(data))}</${name}>`;
	const entries = Object.entries(data);
	const plain = entries.filter(
		([key, one]) =>
			typeof one !== 'object' && key.length > 1 && !/question|stem|prompt|text|body|expl|feed|ration/i.test(key)
	);
	const short = attributes ? plain : [];
	const rest = entries.filter((entry) => !short.includes(entry));
	return `<${name}${short.map(([key, one]) => ` ${key}="${escapeText(String(one)).replace(/"/g, '&quot;')}"`).join('')}>${rest.map(([key, one]) => xmlOf(key, one, attributes)).join('')}</${name}>`;
}

/** Numbers that count the options only where the file shows from where they count, and else their texts. */
function withEvidence(meant: Meant[], habits: ShapeHabits): ShapeHabits {
	const place = habits.key.form === 'index0' ? 0 : habits.key.form === 'index' ? -1 : null;
	const shown = meant.some((one) => 'options' in one && place !== null && one.options.at(place)!.right);
	return place === null || shown ? habits : { ...habits, key: { ...habits.key, form: 'text' } };
}

/** A file with some questions, and its name. */
export function shaped(meant: Meant[], given: ShapeHabits): { name: string; text: string } {
	const habits = withEvidence(meant, given);
	const records = meant.map((one, at) => recordOf(one, at, habits));
	const half = Math.ceil(records.length / 2);
	const groups = [
		{ name: 'Tides', [habits.holderName]: records.slice(0, half) },
		{ name: 'Ropes', [habits.holderName]: records.slice(half) }
	];
	if (habits.form === 'xml') {
		const inner =
			habits.holder === 'groups'
				? xmlOf('groups', groups, habits.attributes)
				: xmlOf(habits.holderName, records, habits.attributes);
		return {
			name: 'a.xml',
			text: `<?xml version="1.0"?>\n${habits.holder === 'named' ? `<bank title="Harbour">${inner}</bank>` : inner}\n`
		};
	}
	const data =
		habits.holder === 'top'
			? records
			: habits.holder === 'named'
				? { title: 'Harbour', [habits.holderName]: records }
				: { title: 'Harbour', groups };
	return { name: 'a.json', text: `${JSON.stringify(data, null, '\t')}\n` };
}
