import fc from 'fast-check';
import type { Meant } from './typed-lists';
import { paragraph, run } from './word-parts';

/** How somebody writes a list of questions in a word processor; every field is one habit. */
export interface WordHabits {
	numbers: 'list' | 'typed' | 'typed with a tab';
	letters: 'level below' | 'list of its own' | 'typed' | 'typed with a tab' | 'bullets' | 'breaks';
	key: 'bold' | 'highlight' | 'colour' | 'underlined' | 'star' | 'answer' | 'list';
	/** Empty paragraphs between questions. */
	apart: boolean;
	/** Runs are cut at these places of every text, as editing leaves them. */
	cuts: number[];
	heading: string;
	title: boolean;
	points: boolean;
	feedback: boolean;
	/** The stems are bold, which is no key. */
	boldStems: boolean;
	/** Pairs stand in a table, and not in lines. */
	table: boolean;
}

const looks: Partial<Record<WordHabits['key'], string>> = {
	bold: '<w:b/>',
	highlight: '<w:highlight w:val="yellow"/>',
	colour: '<w:color w:val="C00000"/>',
	underlined: '<w:u w:val="single"/>'
};

/** Any mixture of habits with a word processor. */
export const anyWordHabits: fc.Arbitrary<WordHabits> = fc
	.record({
		numbers: fc.constantFrom<WordHabits['numbers'][]>('list', 'typed', 'typed with a tab'),
		letters: fc.constantFrom<WordHabits['letters'][]>(
			'level below',
			'list of its own',
			'typed',
			'typed with a tab',
			'bullets',
			'breaks'
		),
		key: fc.constantFrom<WordHabits['key'][]>('bold', 'highlight', 'colour', 'underlined', 'star', 'answer', 'list'),
		apart: fc.boolean(),
		cuts: fc.array(fc.integer({ min: 1, max: 40 }), { maxLength: 3 }),
		heading: fc.constantFrom('', 'Tides', 'Knots and ropes'),
		title: fc.boolean(),
		points: fc.boolean(),
		feedback: fc.boolean(),
		boldStems: fc.boolean(),
		table: fc.boolean()
	})
	// letters below numbers that are no list would go on from one question to the next
	.map((habits) =>
		habits.numbers !== 'list' && habits.letters === 'level below' ? { ...habits, letters: 'list of its own' } : habits
	);

const letter = (at: number) => String.fromCharCode(65 + at);

/** A text in several runs, with the marks that editing leaves between them. */
function inRuns(text: string, { cuts }: WordHabits, style = ''): string {
	const places = [...new Set(cuts)]
		.filter((at) => at < text.length && !text.slice(at - 1, at + 1).includes('\t'))
		.sort((a, b) => a - b);
	const pieces = [0, ...places].map((from, at) => text.slice(from, places[at]));
	return pieces.map((piece) => run(piece, style)).join('<w:proofErr w:type="spellStart"/>');
}

const cell = (text: string) => `<w:tc>${paragraph(run(text))}</w:tc>`;

/** The body of a Word document with the questions, written with some habits. */
export function written(meant: Meant[], habits: WordHabits): string {
	const listed: string[] = [];
	const line = (text: string) => paragraph(inRuns(text, habits));
	const body: string[] = [];
	if (habits.title) body.push(paragraph(run('Of the harbour'), undefined, 'T'));
	if (habits.heading) body.push(paragraph(run(habits.heading), undefined, 'H1'));
	meant.forEach((one, at) => {
		const answer = (text: string) => {
			if (habits.key === 'list') listed.push(`${at + 1}. ${text}`);
			else body.push(line(`Answer: ${text}`));
		};
		const stem = inRuns(
			habits.numbers === 'list' ? one.stem : `${at + 1}.${habits.numbers === 'typed' ? ' ' : '\t'}${one.stem}`,
			habits,
			habits.boldStems ? '<w:b/>' : ''
		);
		const options = 'options' in one ? one.options : [];
		const typed = options.map(({ text, right }, place) => {
			const label =
				habits.letters === 'typed' || habits.letters === 'breaks'
					? `${letter(place)}. `
					: habits.letters === 'typed with a tab'
						? `${letter(place)})\t`
						: '';
			return inRuns(
				`${right && habits.key === 'star' ? '*' : ''}${label}${text}`,
				habits,
				right ? (looks[habits.key] ?? '') : ''
			);
		});
		const list: [number, number] | undefined = habits.numbers === 'list' ? [1, 0] : undefined;
		if (habits.letters === 'breaks') body.push(paragraph([stem, ...typed].join('<w:r><w:br/></w:r>'), list));
		else {
			body.push(paragraph(stem, list));
			const own: Partial<Record<WordHabits['letters'], [number, number]>> = {
				'level below': [1, 1],
				'list of its own': [10 + at, 0],
				bullets: [3, 0]
			};
			for (const option of typed) body.push(paragraph(option, own[habits.letters]));
		}
		if (options.length) {
			if (!looks[habits.key] && habits.key !== 'star')
				answer(options.flatMap((option, place) => (option.right ? [letter(place)] : [])).join(', '));
		} else if ('right' in one) answer(one.right ? 'True' : 'False');
		else if ('answers' in one) answer(one.answers.join(' / '));
		else if ('pairs' in one && habits.table)
			body.push(
				`<w:tbl>${one.pairs.map(([left, right]) => `<w:tr>${cell(left)}${cell(right)}</w:tr>`).join('')}</w:tbl>`
			);
		else if ('pairs' in one) for (const [left, right] of one.pairs) body.push(line(`${left} = ${right}`));
		if (habits.points) body.push(line('Points: 2'));
		if (habits.feedback) body.push(line('Feedback: See the handbook of the school.'));
		if (habits.apart) body.push(paragraph(''));
	});
	if (listed.length) body.push(paragraph(run('Answer key')), ...listed.map(line));
	return body.join('');
}
