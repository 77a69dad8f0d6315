import * as fc from 'fast-check';
import { markupOfHtml, markupOfText } from '../markup/clean';
import { emptyCommon, type Feedback } from '../model/question';
import type { Blank, Question, Variable } from '../kinds';
import type { Pair, Shape, Side } from '../model/pieces';
import { option } from './questions';

const words = fc.string({
	unit: fc.constantFrom('a', 'tide', ' ', 'é', '<', '&', '"', "'", '>', '🌊', '5', '.'),
	maxLength: 12
});
const richText = fc.oneof(
	words.map((text) => markupOfText(text)),
	fc
		.array(
			fc.constantFrom(
				'<p>',
				'</p>',
				'<b>',
				'</b>',
				'<ul><li>',
				'</li></ul>',
				'<table><tr><td>',
				'</td></tr></table>',
				'High water',
				' and ',
				'<br>',
				'<u>',
				'</u>',
				'<div>',
				'</div>',
				'<blockquote>',
				'</blockquote>',
				'<img src="data:image/png;base64,iVBORw0KGgo=">',
				'<math><mi>h</mi></math>',
				'<h3>',
				'</h3>',
				'<a href="#x">',
				'</a>',
				'&lt;'
			),
			{ maxLength: 10 }
		)
		.map((parts) => markupOfHtml(parts.join(''), { media: () => null, removed: () => undefined }))
);
const credit = fc.integer({ min: -100, max: 100 }).map((value) => value / 100);
const feedback: fc.Arbitrary<Feedback> = fc.record(
	{ general: richText, correct: richText, incorrect: richText, partly: richText },
	{ requiredKeys: [] }
);
const common = fc
	.record({
		title: words.map((text) => text.replace(/\s+/g, ' ').trim()),
		stem: richText,
		points: fc.option(fc.constantFrom(0, 0.5, 1, 2, 3, 10), { freq: 4 }),
		category: fc.array(fc.constantFrom('Tides', 'Springs & neaps', 'A/B', 'é'), { maxLength: 3 }),
		tags: fc.uniqueArray(fc.constantFrom('plotting', 'a & b', 'é'), { maxLength: 2 }),
		language: fc.option(fc.constantFrom('en', 'de-CH'), { freq: 2 }),
		feedback,
		hints: fc.array(
			words.filter((one) => one.trim() !== '').map((one) => markupOfText(one)),
			{ maxLength: 1 }
		),
		metadata: fc.array(fc.record({ name: fc.constant('shelf'), value: words }), { maxLength: 1 }),
		difficulty: fc.option(fc.constantFrom('easy', 'hard & long'), { nil: undefined, freq: 4 }),
		stimulus: fc.option(
			richText
				.filter((content) => content !== '')
				.map((content) => ({ identifier: 'forecast', title: 'Forecast', content })),
			{ nil: undefined, freq: 6 }
		)
	})
	.map(({ difficulty, stimulus, ...parts }) => ({
		...emptyCommon('GH', parts.title),
		...parts,
		...(difficulty === undefined ? {} : { difficulty }),
		...(stimulus === undefined ? {} : { stimulus })
	}));
const options = fc
	.array(
		fc.record({
			text: richText,
			credit,
			feedback: fc.option(richText, { nil: undefined, freq: 3 }),
			pinned: fc.boolean()
		}),
		{ minLength: 1, maxLength: 6 }
	)
	.map((list) =>
		list.map((one, at) =>
			option(`O${at}`, one.text, one.credit, {
				pinned: one.pinned,
				...(one.feedback ? { feedback: one.feedback } : {})
			})
		)
	);
const range = fc
	.tuple(fc.integer({ min: -50, max: 50 }), fc.integer({ min: 1, max: 40 }), fc.boolean(), fc.boolean())
	.map(([low, width, includesMin, includesMax]) => ({
		min: low / 4,
		max: (low + width) / 4,
		includesMin,
		includesMax,
		credit: 1
	}));
const value = fc
	.tuple(fc.integer({ min: -50, max: 50 }), fc.constantFrom(0, 0.25, 1))
	.map(([number, tolerance]) => ({ value: number / 4, tolerance, credit: 1 }));
const plainWord = fc.constantFrom('ebb', 'flood', 'slack & still', 'neap', 'a "spring"', 'é<5');
const share = (count: number) => Math.round(1e6 / count) / 1e6;

/** Short answers that are looked for within the answer, or by a pattern. */
const matched: fc.Arbitrary<Question> = fc
	.tuple(
		common,
		fc.uniqueArray(fc.constantFrom('tidal range', 'neap', 'SPRING'), { minLength: 1, maxLength: 2 }),
		fc.boolean()
	)
	.map(([parts, texts, pattern]) => ({
		...parts,
		kind: 'short-answer' as const,
		accepted: [
			...texts.map((text, at) => ({ text, credit: 1, caseSensitive: at > 0, match: 'contains' as const })),
			...(pattern ? [{ text: '[A-Z]{2}[0-9]+', credit: 0.5, caseSensitive: true, match: 'pattern' as const }] : [])
		]
	}));

const numbered = (at: number, text: string) =>
	markupOfHtml(`${at} ${text}`, { media: () => null, removed: () => undefined });
const sideList = (letter: string, least: number) =>
	fc
		.array(fc.tuple(richText, fc.constantFrom(1, 1, 2, null)), { minLength: least, maxLength: 4 })
		.map((list) =>
			list.map(([text, uses], at): Side => ({ identifier: `${letter}${at}`, text: numbered(at, text), uses }))
		);
const sides = fc.tuple(sideList('L', 1), sideList('R', 1));

function pairsBetween(left: { identifier: string }[], right: { identifier: string }[]) {
	return fc
		.tuple(
			fc.array(fc.integer({ min: 0, max: right.length - 1 }), { minLength: left.length, maxLength: left.length }),
			fc.constantFrom('sum' as const, 'all' as const),
			fc.constantFrom({ lower: null, upper: null }, { lower: 0, upper: 1 }),
			fc.boolean(),
			fc.boolean()
		)
		.map(([chosen, combination, bounds, punishing, alone]) => {
			// now and then the last on the left belongs to nothing
			const paired = alone && left.length > 1 ? left.slice(0, -1) : left;
			const pairs: Pair[] = paired.map((one, at) => ({
				left: one.identifier,
				right: right[chosen[at]!]!.identifier,
				credit: share(paired.length)
			}));
			const other = right.find((one) => one.identifier !== pairs[0]!.right);
			if (punishing && other && combination === 'sum')
				pairs.push({ left: left[0]!.identifier, right: other.identifier, credit: -0.25 });
			return { pairs, combination, bounds: combination === 'all' ? { lower: null, upper: null } : bounds };
		});
}

const matching = ([left, right]: [Side[], Side[]]): fc.Arbitrary<Question> =>
	fc
		.tuple(common, pairsBetween(left, right), fc.option(fc.boolean()))
		.map(([parts, pairs, shuffle]) => ({ ...parts, kind: 'matching' as const, left, right, shuffle, ...pairs }));

const ordering: fc.Arbitrary<Question> = fc
	.tuple(
		common,
		fc.array(richText, { minLength: 2, maxLength: 5 }),
		fc.option(fc.boolean()),
		fc.boolean(),
		fc.integer()
	)
	.map(([parts, texts, shuffle, position, turn]) => {
		const items = texts.map((text, at) => ({ identifier: `I${at}`, text: numbered(at, text) }));
		const presented = items.map((_, at) => items[(at + Math.abs(turn)) % items.length]!.identifier);
		return {
			...parts,
			kind: 'ordering' as const,
			items,
			presented,
			rule: position ? ('position' as const) : ('all' as const),
			shuffle
		};
	});

const shapes: Omit<Shape, 'identifier'>[] = [
	{ shape: 'rect', coordinates: [5, 5, 20, 15] },
	{ shape: 'circle', coordinates: [60, 40, 8] },
	{ shape: 'poly', coordinates: [80, 5, 110, 5, 95, 30] },
	{ shape: 'ellipse', coordinates: [30, 60, 12, 6] }
];
const pictureFile = { name: 'chart.png', mediaType: 'image/png', hash: null, missing: true };
const picture = fc
	.tuple(fc.constantFrom(120, null), plainWord)
	.map(([width, alt]) => ({ name: 'chart.png', width, height: width, alt }));
const someShapes = fc.shuffledSubarray(shapes, { minLength: 1 });

const hotspot: fc.Arbitrary<Question> = fc
	.tuple(
		common,
		picture,
		someShapes,
		fc.constantFrom('areas' as const, 'points' as const),
		fc.constantFrom(1, 1, 2, 0),
		fc.constantFrom('sum' as const, 'all' as const),
		fc.integer({ min: 1, max: 3 }),
		fc.constantFrom(0, -0.5)
	)
	.map(([parts, image, list, mode, picks, combination, right, outside]) => {
		const count = Math.min(right, list.length);
		const several = picks !== 1;
		return {
			...parts,
			attachments: [pictureFile],
			kind: 'hotspot' as const,
			picture: image,
			shapes: list.map((shape, at) => ({
				...shape,
				identifier: `S${at}`,
				credit: at < count ? (several ? share(count) : at ? 0.5 : 1) : 0
			})),
			mode,
			picks,
			outside: mode === 'points' && combination === 'sum' ? outside : 0,
			combination: several ? combination : ('sum' as const),
			bounds: { lower: null, upper: null }
		};
	});

const labels: fc.Arbitrary<Question> = fc
	.tuple(common, picture, someShapes, fc.uniqueArray(plainWord, { minLength: 1, maxLength: 3 }))
	.chain(([parts, image, list, words]) => {
		const targets = list.map((shape, at) => ({ ...shape, identifier: `T${at}`, uses: at ? 1 : null }));
		const given = words.map((text, at): Side => ({ identifier: `W${at}`, text: markupOfText(text), uses: 1 }));
		return pairsBetween(given, targets).map((pairs) => ({
			...parts,
			attachments: [pictureFile],
			kind: 'label-image' as const,
			picture: image,
			labels: given,
			targets,
			...pairs
		}));
	});

const calculated: fc.Arbitrary<Question> = fc
	.tuple(
		common,
		fc.constantFrom('S * T', '(S + 2.5) / T - 1', 'sqrt(S) + abs(-T)', 'round(S / 3, 1)', 'max(S, T) ^ 2', 'pi * S'),
		fc.constantFrom(
			{ mode: 'absolute' as const, value: 0 },
			{ mode: 'absolute' as const, value: 0.5 },
			{ mode: 'relative' as const, value: 0.02 }
		),
		fc.constantFrom<Variable['values']>(
			{ form: 'range', min: 4, max: 12, step: 2 },
			{ form: 'set', values: [5, 7.5, 9] },
			{ form: 'range', min: 1, max: 9, step: null }
		),
		fc.boolean(),
		fc.constantFrom(undefined, 'M'),
		fc.constantFrom(1, 2, null)
	)
	.map(([parts, expression, tolerance, values, constrained, unit, step]) => ({
		...parts,
		stem: 'At <var class="variable">S</var> knots for <var class="variable">T</var> hours?',
		kind: 'calculated' as const,
		variables: [
			{ name: 'S', whole: false, decimals: 1, values },
			{ name: 'T', whole: true, decimals: null, values: { form: 'range' as const, min: 2, max: 6, step } }
		],
		constraints: constrained ? ['S > T - 20'] : [],
		expression,
		tolerance,
		whole: false,
		...(unit ? { unit } : {})
	}));

/** How a blank is filled, without its name and share. */
type Answer = Blank extends infer Of ? (Of extends Blank ? Omit<Of, 'identifier' | 'share'> : never) : never;

const blankAnswer: fc.Arbitrary<Answer> = fc.oneof(
	fc.uniqueArray(plainWord, { minLength: 1, maxLength: 3 }).map((texts): Answer => ({
		form: 'text',
		accepted: texts.map((text, at) => ({ text, credit: at ? 0.5 : 1, caseSensitive: at === 1 }))
	})),
	fc
		.tuple(fc.oneof(range, value), fc.boolean())
		.map(([accepted, whole]): Answer => ({ form: 'number', accepted: [accepted], whole })),
	fc
		.tuple(fc.uniqueArray(plainWord, { minLength: 2, maxLength: 4 }), fc.option(fc.boolean()))
		.map(([texts, shuffle]): Answer => ({
			form: 'list',
			several: false,
			shuffle,
			entries: texts.map((text, at) => ({ identifier: `E${at}`, text: markupOfText(text), credit: at === 1 ? 1 : 0 }))
		})),
	fc.constant<Answer>({ form: 'open' })
);
/** A stem with blanks in a line, in the cells of a table, or in lines of their own. */
function stemOfBlanks(shape: string, marks: string[]): string {
	if (shape === 'table')
		return `<table><tbody>${marks.map((mark, at) => `<tr><td>Stream ${at + 1}</td><td>${mark}</td></tr>`).join('')}</tbody></table>`;
	if (shape === 'blocks')
		return marks.map((mark, at) => `<p>The stream ${at + 1} is</p>${mark.replace('<span', '<div')}`).join('');
	if (shape === 'lines' && marks.length > 1) return marks.map((mark, at) => `<p>${at + 1}. ${mark}</p>`).join('');
	return marks.map((mark) => `The stream is ${mark} then`).join(' ');
}

const fills: fc.Arbitrary<Question> = fc
	.tuple(
		common,
		fc.array(blankAnswer, { minLength: 1, maxLength: 3 }),
		fc.constantFrom('sum' as const, 'all' as const),
		fc.boolean(),
		fc.option(fc.boolean()),
		fc.uniqueArray(plainWord, { minLength: 3, maxLength: 4 }),
		fc.constantFrom('line', 'table', 'lines', 'blocks')
	)
	.map(([parts, answers, combination, words, shuffle, bankWords, shape]) => {
		const bank = words
			? bankWords.map((text, at): Side => ({ identifier: `W${at}`, text: markupOfText(text), uses: at ? 1 : null }))
			: [];
		const blanks = answers.map((answer, at): Blank => {
			const base = { identifier: `B${at}`, share: share(answers.length) };
			return words ? { ...base, form: 'word', words: [{ word: `W${at}`, credit: 1 }] } : { ...base, ...answer };
		});
		const together = blanks.length > 1 ? combination : ('sum' as const);
		// of no points at all, a long answer has no share that a file could tell
		const points = parts.points === 0 && blanks.some((blank) => blank.form === 'open') ? 1 : parts.points;
		return {
			...parts,
			points,
			kind: 'fill-blanks' as const,
			stem: stemOfBlanks(
				shape,
				blanks.map(({ identifier }) => `<span class="blank" id="${identifier}"/>`)
			),
			blanks:
				together === 'all'
					? blanks.map((blank) =>
							blank.form === 'text' ? { ...blank, accepted: blank.accepted.filter((one) => one.credit === 1) } : blank
						)
					: blanks,
			bank,
			combination: together,
			shuffle: words ? shuffle : null
		};
	});

/** Any question that the model allows, of any kind that can be read. */
export const anyQuestion: fc.Arbitrary<Question> = fc.oneof(
	fc
		.tuple(
			common,
			options,
			fc.constantFrom('multiple-choice' as const, 'multiple-response' as const),
			fc.option(fc.boolean()),
			fc.constantFrom('sum' as const, 'all' as const),
			fc.boolean()
		)
		.map(([parts, list, kind, shuffle, combination, bounded]) => ({
			...parts,
			kind,
			shuffle,
			options: list,
			combination: kind === 'multiple-response' ? combination : 'sum',
			bounds:
				kind === 'multiple-response' && combination === 'sum' && bounded
					? { lower: 0, upper: 1 }
					: { lower: null, upper: null },
			lostKeys: []
		})),
	fc
		.tuple(
			common,
			fc.uniqueArray(
				words.filter((one) => one.trim() !== '').map((one) => one.trim()),
				{ maxLength: 3, selector: (one) => one.toLowerCase() }
			)
		)
		.map(([parts, texts]) => ({
			...parts,
			kind: 'short-answer' as const,
			accepted: texts.map((text, at) => ({ text, credit: at ? 0.5 : 1, caseSensitive: at % 2 === 1 }))
		})),
	fc
		.tuple(
			common,
			fc.oneof(range, value),
			fc.boolean(),
			fc.constantFrom(undefined, undefined, 'knots', 'm & cm'),
			fc.constantFrom(undefined, undefined, { lower: -20, upper: 30, step: 0.25 }, { lower: 0, upper: 9, step: null })
		)
		.map(([parts, accepted, whole, unit, slider]) => ({
			...parts,
			kind: 'numeric' as const,
			whole,
			accepted: [accepted],
			...(unit ? { unit } : {}),
			...(slider ? { slider } : {})
		})),
	matched,
	fills,
	sides.chain(matching),
	ordering,
	hotspot,
	labels,
	calculated,
	fc
		.tuple(common, fc.constantFrom(null, 'application/pdf'))
		.map(([parts, accepts]) => ({ ...parts, kind: 'file-upload' as const, accepts })),
	common.map((parts) => ({ ...parts, kind: 'essay' as const })),
	common.map((parts) => ({ ...parts, kind: 'information' as const }))
);
