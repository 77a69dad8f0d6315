import { acceptedNumbers, tidy } from '../formats/numbers';
import { accepts } from '../scoring/answers';
import {
	mapMarkup,
	isChoice,
	type AcceptedNumber,
	type AcceptedText,
	type Bounds,
	type Combination,
	type Pair,
	type Picture,
	type Question,
	type Shape
} from '../model/question';
import { parseExpression, writeExpression } from '../calculated/expression';
import { replaceBlanks } from '../markup/markers';

/** Rich text in the one form in which it is compared: pictures by their content, and white space folded. */
function settle(markup: string, hashes: Map<string, string>): string {
	return (
		markup
			.replace(/="media:([^"]*)"/g, (_, name: string) => `="media:${hashes.get(name) ?? name}"`)
			.replace(/[\s\u00a0]+/g, ' ')
			// white space at the ends of a block shows nowhere
			.replace(
				/(<\/?(?:p|div|li|td|th|h[1-6]|dt|dd|ul|ol|table|tr|tbody|blockquote|caption)(?: [^<>]*)?>) | (?=<\/?(?:p|div|li|td|th|h[1-6]|dt|dd|ul|ol|table|tr|tbody|blockquote|caption)[ >/])/g,
				'$1'
			)
			.trim()
	);
}

/** The accepted numbers in the one form that says what earns how much, however many ways there are to write it. */
function settledNumbers(given: AcceptedNumber[]): AcceptedNumber[] {
	// a value with a tolerance is the range around it
	const accepted = given.map((one): AcceptedNumber =>
		'value' in one && one.tolerance > 0
			? {
					min: tidy(one.value - one.tolerance),
					max: tidy(one.value + one.tolerance),
					includesMin: true,
					includesMax: true,
					credit: one.credit
				}
			: one
	);
	const ends = accepted.flatMap((one) =>
		'value' in one
			? [one.value - one.tolerance, one.value + one.tolerance]
			: [one.min, one.max].filter((end) => end !== null)
	);
	const centres = accepted.flatMap((one) => ('value' in one ? [one] : []));
	if (!ends.length) return accepted;
	return acceptedNumbers(
		ends,
		(value) => Math.max(0, ...accepted.filter((one) => accepts(one, value)).map((one) => one.credit)),
		centres
	);
}

const settledTexts = (accepted: AcceptedText[]) =>
	accepted.map(({ text, credit, caseSensitive, match }) => ({ text, credit, caseSensitive, match: match ?? 'whole' }));

function settledPairs(
	{ pairs, combination, bounds }: { pairs: Pair[]; combination: Combination; bounds: Bounds },
	left: { identifier: string }[],
	right: { identifier: string }[]
): Record<string, unknown> {
	const place = (list: { identifier: string }[], identifier: string) =>
		list.findIndex((one) => one.identifier === identifier);
	const known = pairs
		.filter((pair) => pair.credit !== 0)
		.map((pair) => [place(left, pair.left), place(right, pair.right), combination === 'all' ? 1 : pair.credit])
		.sort((a, b) => a[0]! - b[0]! || a[1]! - b[1]!);
	// of a single pair, all of them is that one
	if (known.length === 1 && known[0]![2] === 1) return { pairs: known, combination: 'sum', bounds: null };
	return { pairs: known, combination, bounds: combination === 'all' ? null : bounds };
}

const shapeOf = ({ shape, coordinates }: Shape) => ({ shape, coordinates });

function settledExpression(expression: string): string {
	try {
		return writeExpression(parseExpression(expression));
	} catch {
		return expression;
	}
}

/** The parts of a question that make up its content, by the names that people know; identifiers and places are left out. */
export function contentOf(question: Question): Record<string, unknown> {
	const hashes = new Map(
		question.attachments
			.filter((one) => one.hash)
			.map((one) => [one.name.replace(/&/g, '&amp;').replace(/"/g, '&quot;'), one.hash!])
	);
	const settled = mapMarkup(question, (markup) => settle(markup, hashes));
	const pictureOf = ({ name, width, height, alt }: Picture) => ({
		file: question.attachments.find((one) => one.name === name)?.hash ?? name,
		width,
		height,
		alt
	});
	const out: Record<string, unknown> = {
		kind: settled.kind,
		title: settled.title,
		stem: settled.stem,
		stimulus: settled.stimulus ? settled.stimulus.content : '',
		points: settled.points,
		feedback: Object.fromEntries(
			Object.entries(settled.feedback)
				.filter(([, markup]) => markup)
				.sort(([a], [b]) => (a < b ? -1 : 1))
		),
		hints: settled.hints
	};
	if (isChoice(settled)) {
		out.options = settled.options.map(({ text, credit, feedback, pinned }) => ({
			text,
			credit,
			feedback: feedback ?? '',
			pinned
		}));
		out.shuffle = settled.shuffle;
		if (settled.kind === 'multiple-response') {
			// of a single option, all of them is that one
			const single = settled.options.length === 1 && settled.bounds.lower === null && settled.bounds.upper === null;
			out.combination = single ? 'sum' : settled.combination;
			out.bounds = settled.bounds;
		}
	} else if (settled.kind === 'short-answer') out.accepted = settledTexts(settled.accepted);
	else if (settled.kind === 'numeric') {
		out.whole = settled.whole;
		out.accepted = settledNumbers(settled.accepted);
		out.unit = settled.unit ?? '';
		out.slider = settled.slider ?? null;
	} else if (settled.kind === 'fill-blanks') {
		const order = settled.blanks.map((blank) => blank.identifier);
		// a blank that stands as a block and one alone in a paragraph are the same to everybody
		out.stem = replaceBlanks(settled.stem, (identifier, block) => {
			const mark = `{${order.indexOf(identifier)}}`;
			return block ? `<p>${mark}</p>` : mark;
		});
		out.blanks = settled.blanks.map((blank) => {
			const rest = {
				form: blank.form,
				share: settled.combination === 'all' ? null : Math.round(blank.share * 1e5) / 1e5
			};
			if (blank.form === 'text') return { ...rest, accepted: settledTexts(blank.accepted) };
			if (blank.form === 'number') return { ...rest, whole: blank.whole, accepted: settledNumbers(blank.accepted) };
			if (blank.form === 'list') {
				const entries = blank.entries.map(({ text, credit }) => ({ text, credit }));
				return { ...rest, entries, several: blank.several, shuffle: blank.shuffle };
			}
			if (blank.form === 'open') return rest;
			const place = new Map(settled.bank.map((word, at) => [word.identifier, at]));
			const words = blank.words.map(({ word, credit }) => [place.get(word) ?? -1, credit] as const);
			return { ...rest, words: words.filter(([, credit]) => credit !== 0).sort(([a], [b]) => a - b) };
		});
		out.bank = settled.bank.map(({ text, uses }) => ({ text, uses }));
		out.combination = settled.combination;
		out.shuffle = settled.bank.length ? settled.shuffle : null;
	} else if (settled.kind === 'matching') {
		out.left = settled.left.map(({ text, uses }) => ({ text, uses }));
		out.right = settled.right.map(({ text, uses }) => ({ text, uses }));
		Object.assign(out, settledPairs(settled, settled.left, settled.right));
		out.shuffle = settled.shuffle;
	} else if (settled.kind === 'ordering') {
		out.items = settled.items.map((item) => item.text);
		out.presented = settled.presented.map((one) => settled.items.findIndex((item) => item.identifier === one));
		// of two things, both are in place or neither
		out.rule = settled.items.length < 3 ? 'all' : settled.rule;
		out.shuffle = settled.shuffle;
	} else if (settled.kind === 'hotspot') {
		out.picture = pictureOf(settled.picture);
		out.shapes = settled.shapes.map((shape) => ({ ...shapeOf(shape), credit: shape.credit }));
		const { mode, picks, outside, combination, bounds } = settled;
		const whole = combination === 'all';
		// with a single place, all of them is that one
		const single = settled.shapes.length === 1 && (whole || outside === 0);
		Object.assign(out, {
			mode,
			picks,
			outside: whole ? 0 : outside,
			combination: single ? 'sum' : combination,
			bounds: whole ? { lower: null, upper: null } : bounds
		});
	} else if (settled.kind === 'label-image') {
		out.picture = pictureOf(settled.picture);
		out.labels = settled.labels.map(({ text, uses }) => ({ text, uses }));
		out.targets = settled.targets.map((one) => ({ ...shapeOf(one), uses: one.uses }));
		Object.assign(out, settledPairs(settled, settled.labels, settled.targets));
	} else if (settled.kind === 'calculated') {
		const { variables, tolerance, whole, unit } = settled;
		out.variables = variables.map((one) => ({
			...one,
			values:
				one.values.form === 'expression'
					? settledExpression(one.values.expression)
					: // whole numbers go in steps of one where nothing else is said
						one.values.form === 'range' && one.whole
						? { ...one.values, step: one.values.step ?? 1 }
						: one.values
		}));
		out.constraints = settled.constraints.map(settledExpression);
		out.expression = settledExpression(settled.expression);
		Object.assign(out, { tolerance, whole, unit: unit ?? '' });
	} else if (settled.kind === 'file-upload') out.accepts = settled.accepts;
	else if (settled.kind === 'unreadable')
		out.fragment = settled.fragment
			.replace(/\b(src|data|href)\s*=\s*("[^"]*"|'[^']*')/g, '$1')
			.replace(/\s+/g, ' ')
			.trim();
	// the same content under two names is one file
	out.files = [...new Set(question.attachments.map((one) => one.hash ?? one.name))].sort();
	return out;
}

/** One string for everything that a question says: the same for two questions exactly when their content is the same. */
export function canonicalForm(question: Question): string {
	const { title: _title, points: _points, ...content } = contentOf(question);
	return JSON.stringify(content);
}

/** One part of a question that is not the same in another. */
export interface Difference {
	field: string;
	before: string;
	after: string;
}

/** How two questions differ, part by part; tags, language and category are parts too. Empty where nothing differs. */
export function differences(before: Question, after: Question): Difference[] {
	const parts = (question: Question): Record<string, unknown> => ({
		...contentOf(question),
		category: question.category,
		tags: [...question.tags].sort(),
		difficulty: question.difficulty ?? '',
		language: question.language,
		metadata: question.metadata.map(({ name, value }) => `${name}: ${value}`).sort()
	});
	const [a, b] = [parts(before), parts(after)];
	return [...new Set([...Object.keys(a), ...Object.keys(b)])].flatMap((field) => {
		const [x, y] = [JSON.stringify(a[field] ?? null), JSON.stringify(b[field] ?? null)];
		return x === y ? [] : [{ field, before: x, after: y }];
	});
}
