import fc from 'fast-check';

/** A question as somebody has it in mind before typing it, in the short form that the tests compare. */
export type Meant =
	| { kind: 'multiple-choice' | 'multiple-response'; stem: string; options: { text: string; right: boolean }[] }
	| { kind: 'true-false'; stem: string; right: boolean }
	| { kind: 'short-answer' | 'numeric'; stem: string; answers: string[] }
	| { kind: 'matching'; stem: string; pairs: [string, string][] }
	| { kind: 'essay'; stem: string };

type Choice = Extract<Meant, { options: unknown } | { right: boolean }>;

/** The options of a choice; those of a statement are true and false. */
export function optionsOf(meant: Choice): { text: string; right: boolean }[] {
	if ('options' in meant) return meant.options;
	return [
		{ text: 'True', right: meant.right },
		{ text: 'False', right: !meant.right }
	];
}

/** A number that is meant, as it is written: "3.66 +/- 0.01", "27 to 28" or "10"; of a range, the value is its lower end. */
export function numberMeant(answer: string): {
	value: string;
	tolerance: string | null;
	bounds: [number, number] | null;
} {
	const [, value, tolerance] = /^(\S+) \+\/- (\S+)$/.exec(answer) ?? [];
	if (value && tolerance)
		return { value, tolerance, bounds: [Number(value) - Number(tolerance), Number(value) + Number(tolerance)] };
	const [, from, to] = /^(\S+) to (\S+)$/.exec(answer) ?? [];
	return { value: from ?? answer, tolerance: null, bounds: from ? [Number(from), Number(to)] : null };
}

/** A question that is meant, in the short form of one that was read. */
export function shortOf(meant: Meant): string[] {
	const { kind, stem } = meant;
	if ('options' in meant) return [kind, stem, ...meant.options.map(({ text, right }) => `${right ? '*' : ''}${text}`)];
	if ('right' in meant) return [kind, stem, `${meant.right ? '*' : ''}True`, `${meant.right ? '' : '*'}False`];
	if (meant.kind === 'numeric')
		return [
			kind,
			stem,
			...meant.answers.map((text) => {
				const [, value, tolerance] = /^(\S+)(?: \+\/- (\S+))?$/.exec(text) ?? [];
				return value === undefined ? text.replace(' to ', '–') : `${Number(value)}±${Number(tolerance ?? 0)}`;
			})
		];
	if ('answers' in meant) return [kind, stem, ...meant.answers];
	if ('pairs' in meant) return [kind, stem, ...meant.pairs.map((pair) => pair.join('='))];
	return [kind, stem];
}

const choices: [string, string[], string[]][] = [
	['Which knot makes a fixed loop in the end of a rope?', ['Bowline'], ['Clove hitch', 'Reef knot', 'Sheet bend']],
	['What is the vertical distance between high water and low water called?', ['The range'], ['The set', 'The drift']],
	[
		'Which light does a vessel at anchor of less than 50 metres show?',
		['An all-round white light'],
		['A red light', 'A green light', 'A yellow flashing light']
	],
	['A fender protects', ['the hull of a vessel'], ['the anchor', 'the compass', 'the crew']],
	['Which of these are natural fibres?', ['Manila', 'Hemp'], ['Nylon', 'Polyester']],
	['Which words are used in radio procedure?', ['Over', 'Out', 'Roger'], ['Cheers']]
];
const truths: [string, boolean][] = [
	['Spring tides occur at new moon and full moon.', true],
	['The port sidelight is green.', false],
	['A barometer measures the pressure of the air.', true]
];
const written: [string, string[]][] = [
	['What is the short strong post on a quay called?', ['bollard']],
	['Name the rope that leads from the stern to the quay.', ['stern line', 'stern rope']]
];
const numbers: [string, string[]][] = [
	['How many cables make one nautical mile?', ['10']],
	['How many metres are two fathoms?', ['3.66 +/- 0.01']],
	['What is the length of a shackle of cable in metres?', ['27 to 28']]
];
const matches: [string, [string, string][]][] = [
	[
		'Match each knot with its use.',
		[
			['Bowline', 'fixed loop'],
			['Sheet bend', 'joining two ropes'],
			['Clove hitch', 'making fast to a rail']
		]
	]
];
const essays = [
	'Describe how a vessel is moored alongside in an offshore wind.',
	'Explain why a heavy vessel needs more cable.'
];

/** How somebody types a list of questions; every field is one habit. */
export interface Habits {
	/** What the numbers and the letters look like, for whoever reads a failure. */
	named: string;
	number: (at: number) => string;
	label: (at: number) => string;
	key: 'star' | 'star behind' | 'boxes' | 'answer' | 'answer with text' | 'text' | 'bold' | 'list' | 'list on one line';
	answerWord: string;
	indent: string;
	/** What stands in front of each option, and of each pair. */
	bullet: string;
	/** Blank lines between questions and between their parts. */
	apart: boolean;
	loose: boolean;
	oneLine: boolean;
	wrapped: boolean;
	truth: 'options' | 'mark' | 'answer';
	feedback: boolean;
	listHeading: string;
	/** How each entry of a list at the end begins. */
	listed: (at: number) => string;
	/** What stands in front of the first question, and between two. */
	opening: string;
	between: string;
	pointsForm: 'none' | 'line' | 'behind' | 'in brackets';
	/** A heading in front of the first question. */
	heading: string;
	tags: boolean;
	titled: boolean;
	optionFeedback: boolean;
	equals: string;
	around: string;
	either: string;
	essay: string;
	/** The answer line with what decorates it. */
	decorated: (name: string, value: string) => string;
	/** Where an empty line is put in by the way: behind which lines, over and over. */
	scattered: boolean[];
	numbers: 'count' | 'skip' | 'restart';
	lineEnd: string;
}

const roman = ['i', 'ii', 'iii', 'iv', 'v'];
const numbering: [string, (at: number) => string][] = [
	['1.', (at) => `${at}. `],
	['1)', (at) => `${at}) `],
	['Q1.', (at) => `Q${at}. `],
	['Q1)', (at) => `Q${at}) `],
	['Question 1:', (at) => `Question ${at}: `],
	['Question 1 on its own line', (at) => `Question ${at}\n`],
	['1 -', (at) => `${at} - `],
	['**1.**', (at) => `**${at}.** `],
	['tab', (at) => `${at}.\t`],
	['blanks', (at) => `${at}.      `],
	['(1)', (at) => `(${at}) `],
	['### Question 1', (at) => `### Question ${at}\n`],
	['#### 1.', (at) => `#### ${at}. `],
	['**Question 1:**', (at) => `**Question ${at}:** `],
	['Q1:', (at) => `Q${at}: `],
	['1:', (at) => `${at}: `],
	['Question 1.', (at) => `Question ${at}. `],
	['No. 1', (at) => `No. ${at}: `]
];
const labels: [string, (at: number) => string][] = [
	['A.', (at) => `${'ABCDE'[at]}. `],
	['A)', (at) => `${'ABCDE'[at]}) `],
	['a.', (at) => `${'abcde'[at]}. `],
	['a)', (at) => `${'abcde'[at]}) `],
	['(a)', (at) => `(${'abcde'[at]}) `],
	['(A)', (at) => `(${'ABCDE'[at]}) `],
	['i.', (at) => `${roman[at]}. `],
	['i)', (at) => `${roman[at]}) `],
	['[A]', (at) => `[${'ABCDE'[at]}] `],
	['A:', (at) => `${'ABCDE'[at]}: `],
	['A -', (at) => `${'ABCDE'[at]} - `],
	['1) under words', (at) => `${at + 1}) `],
	['A tab', (at) => `${'ABCDE'[at]}.\t`]
];

/** Mostly the first, now and then one of the others. */
const usually = <T>(first: T, ...others: T[]): fc.Arbitrary<T> =>
	fc.oneof({ weight: 3, arbitrary: fc.constant(first) }, { weight: 1, arbitrary: fc.constantFrom(...others) });

/** Any mixture of habits. */
export const anyHabits: fc.Arbitrary<Habits> = fc
	.record({
		numbering: fc.constantFrom(...numbering),
		labelling: fc.constantFrom(...labels),
		key: fc.constantFrom<Habits['key'][]>(
			'star',
			'star behind',
			'boxes',
			'answer',
			'answer with text',
			'text',
			'bold',
			'list',
			'list on one line'
		),
		answerWord: fc.constantFrom('Answer', 'Answers', 'Key', 'Correct answer', 'ANSWER', 'Ans'),
		indent: fc.constantFrom('', '   ', '\t'),
		bullet: usually<string>('', '- ', '• '),
		apart: fc.boolean(),
		loose: fc.boolean(),
		oneLine: fc.boolean(),
		wrapped: fc.boolean(),
		truth: fc.constantFrom<Habits['truth'][]>('options', 'mark', 'answer'),
		feedback: fc.boolean(),
		listHeading: fc.constantFrom('Answer key', 'Answers', 'ANSWER KEY:', '## Answer Key', 'Key'),
		listed: fc.constantFrom<Habits['listed'][]>(
			(at) => `${at}. `,
			(at) => `${at}) `,
			(at) => `Q${at}. `,
			(at) => `${at}: `,
			(at) => `${at} - `
		),
		opening: usually<string>('', 'Sure! Here is your quiz:', 'Harbour revision\n\nAnswer all questions.'),
		between: usually<string>('', '---', '***', '________'),
		pointsForm: fc.constantFrom<Habits['pointsForm'][]>('none', 'line', 'behind', 'in brackets'),
		heading: usually<string>('', '## Tides', '### Knots and ropes'),
		tags: usually<boolean>(false, true),
		titled: usually<boolean>(false, true),
		optionFeedback: usually<boolean>(false, true),
		equals: fc.constantFrom(' = ', ' -> ', ' => ', '='),
		around: fc.constantFrom(' +/- ', ' ± ', '±'),
		either: fc.constantFrom(' / ', '; '),
		essay: fc.constantFrom('[essay]', 'Essay', ''),
		decorated: fc.constantFrom<Habits['decorated'][]>(
			(name, value) => `${name}: ${value}`,
			(name, value) => `**${name}:** ${value}`,
			(name, value) => `**${name}: ${value}**`,
			(name, value) => `*${name}: ${value}*`,
			(name, value) => `(${name}: ${value})`,
			(name, value) => `[${name}: ${value}]`
		),
		scattered: fc.oneof(fc.constant<boolean[]>([]), fc.array(fc.boolean(), { minLength: 3, maxLength: 9 })),
		numbers: usually<Habits['numbers']>('count', 'skip', 'restart'),
		lineEnd: usually<string>('\n', '\r\n')
	})
	.map(({ numbering: [name, number], labelling, ...rest }) => {
		// numbers in front of options are told from those of questions only where these have a word beside them
		const [labelled, label] = labelling[0].startsWith('1)') && !/^\W*[QN]/.test(name) ? labels[0]! : labelling;
		return { ...rest, number, label, named: `${name} ${labelled}` };
	});

/** Any few questions, none of them twice. */
export const anyMeant: fc.Arbitrary<Meant[]> = fc
	.shuffledSubarray(
		[
			...choices.map(([stem, right, wrong]): Meant => ({
				kind: right.length > 1 ? 'multiple-response' : 'multiple-choice',
				stem,
				options: [...right.map((text) => ({ text, right: true })), ...wrong.map((text) => ({ text, right: false }))]
			})),
			...truths.map(([stem, right]): Meant => ({ kind: 'true-false', stem, right })),
			...written.map(([stem, answers]): Meant => ({ kind: 'short-answer', stem, answers })),
			...numbers.map(([stem, answers]): Meant => ({ kind: 'numeric', stem, answers })),
			...matches.map(([stem, pairs]): Meant => ({ kind: 'matching', stem, pairs })),
			...essays.map((stem): Meant => ({ kind: 'essay', stem }))
		],
		{ minLength: 2, maxLength: 6 }
	)
	.chain((list) =>
		fc.tuple(
			...list.map((one) =>
				'options' in one
					? fc
							.shuffledSubarray(one.options, { minLength: one.options.length })
							.map((options): Meant => ({ ...one, options }))
					: fc.constant(one)
			)
		)
	);

const broken = (text: string, wrapped: boolean, indent: string) => {
	const at = wrapped && text.length > 40 ? text.indexOf(' ', 30) : -1;
	return at < 0 ? text : `${text.slice(0, at)}\n${indent}${text.slice(at + 1)}`;
};

function optionLines(options: { text: string; right: boolean }[], habits: Habits): string[] {
	const front = habits.indent + habits.bullet;
	return options.map(({ text, right }, at) => {
		const label = habits.label(at);
		const typed = habits.key === 'boxes' ? text : broken(`${label}${text}`, habits.wrapped, `${habits.indent}   `);
		if (habits.key === 'boxes') return `${front}${right ? '[x]' : '[ ]'} ${text}`;
		if (habits.key === 'star') return `${front}${right ? '*' : ''}${typed}`;
		if (habits.key === 'star behind') return `${front}${typed}${right ? ' *' : ''}`;
		if (habits.key === 'bold') return `${front}${right ? `**${label}${text}**` : typed}`;
		return `${front}${typed}`;
	});
}

/** The words that are put behind every stem with points in brackets, which stay part of no stem. */
const behind: Record<Habits['pointsForm'], string> = {
	none: '',
	line: '',
	behind: ' (2 points)',
	'in brackets': ' [2 marks]'
};

/** One question as it is typed, with what the list of answers at the end says of it, where there is such a list. */
function typedOne(meant: Meant, number: string, habits: Habits): { lines: string[]; listed: string | null } {
	const stem = `${number}${broken(meant.stem + behind[habits.pointsForm], habits.wrapped && !/^#.* $/.test(number), habits.indent)}`;
	const lines = [stem];
	let listed: string | null = null;
	const atEnd = habits.key.startsWith('list');
	const answer = (text: string) => {
		if (atEnd) listed = text;
		else lines.push(habits.decorated(habits.answerWord, text));
	};
	if ('options' in meant || (meant.kind === 'true-false' && habits.truth === 'options')) {
		const options = optionsOf(meant);
		const typed = optionLines(options, habits);
		const onOne =
			habits.oneLine &&
			!habits.bullet &&
			habits.key !== 'boxes' &&
			!habits.optionFeedback &&
			typed.join('').length < 90;
		if (onOne && !typed.join('').includes('\n')) lines.push(typed.map((one) => one.trim()).join('    '));
		else if (habits.optionFeedback)
			lines.push(...typed.flatMap((one, at) => [one, `${habits.indent}   Feedback: Note ${at + 1}.`]));
		else lines.push(...typed);
		const right = options.flatMap((one, place) => (one.right ? [place] : []));
		const letters = right.map((place) => habits.label(place).replace(/[^A-Za-z0-9]/g, ''));
		if (habits.key === 'answer' || atEnd) answer(letters.join(', '));
		if (habits.key === 'answer with text')
			answer(right.map((place) => `${habits.label(place).trim()} ${options[place]!.text}`).join(', '));
		if (habits.key === 'text') answer(right.map((place) => options[place]!.text).join(', '));
	} else if (meant.kind === 'true-false') {
		if (habits.truth === 'mark') lines[0] = `${lines[0]!} (T/F)`;
		answer(meant.right ? 'True' : 'False');
	} else if ('answers' in meant) answer(meant.answers.join(habits.either).replace(' +/- ', habits.around));
	else if (meant.kind === 'matching')
		lines.push(
			...meant.pairs.map(([left, right]) => `${habits.indent}${habits.bullet}${left}${habits.equals}${right}`)
		);
	else if (habits.essay) lines.push(habits.essay);
	if (habits.titled) lines.push('Title: Of the harbour');
	if (habits.pointsForm === 'line') lines.push('Points: 2');
	if (habits.tags) lines.push('Tags: harbour, autumn');
	if (habits.feedback) lines.push('Feedback: See the handbook of the school.');
	return { lines, listed };
}

const ownNames = [
	'label',
	'key',
	'answerWord',
	'decorated',
	'indent',
	'bullet',
	'oneLine',
	'wrapped',
	'truth',
	'pointsForm',
	'feedback',
	'tags',
	'optionFeedback'
] as const;

/** Habits that somebody may have in one question and not in the next. */
export type OwnHabits = Pick<Habits, (typeof ownNames)[number]>;

/** Habits of their own for each of some questions, where those of all are given. */
export const anyOwnHabits = (count: number, { key, number }: Habits): fc.Arbitrary<OwnHabits[]> =>
	fc.array(anyHabits, { minLength: count, maxLength: count }).map((list) =>
		list.map((given) => {
			const own = Object.fromEntries(ownNames.map((name) => [name, given[name]])) as OwnHabits;
			if (/^\d/.test(own.label(0)) && !/^\W*[QN]/.test(number(1))) own.label = labels[0]![1];
			// a list of answers at the end has those of all
			if (key.startsWith('list') || own.key.startsWith('list')) own.key = key;
			return own;
		})
	);

/** The list as it is typed with some habits, of which single questions may have others. */
export function typed(meant: Meant[], habits: Habits, own: OwnHabits[] = []): string {
	const listed: string[] = [];
	let line = 0;
	const scatter = (lines: string[]) =>
		lines.flatMap((one) => (habits.scattered[line++ % Math.max(1, habits.scattered.length)] ? [one, ''] : [one]));
	const atEnd = habits.key.startsWith('list');
	const numberOf = (at: number) =>
		habits.numbers === 'count' || atEnd
			? at + 1
			: habits.numbers === 'skip'
				? at + 1 + Math.floor(at / 2)
				: (at % 3) + 1;
	const blocks = meant.map((one, at) => {
		const { lines, listed: found } = typedOne(one, habits.number(numberOf(at)), { ...habits, ...own[at] });
		if (found !== null) listed.push(`${habits.listed(at + 1)}${found}`);
		return habits.loose ? lines.join('\n\n') : scatter(lines).join('\n');
	});
	const gap = habits.apart || habits.loose ? '\n\n' : '\n';
	const body = [
		...(habits.opening ? [`${habits.opening}\n`] : []),
		...(habits.heading ? [`${habits.heading}\n`] : []),
		blocks.join(habits.between ? `\n\n${habits.between}\n\n` : gap)
	].join('\n');
	const whole = listed.length
		? `${body}\n\n${habits.listHeading}\n${listed.join(habits.key === 'list' ? '\n' : '  ')}\n`
		: `${body}\n`;
	return whole.replace(/\n/g, habits.lineEnd);
}
