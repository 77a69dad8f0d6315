import { acceptedNumbers } from '../formats/numbers';
import { accepts } from '../scoring/score';
import { mapMarkup, isChoice, type AcceptedNumber, type NumericQuestion, type Question } from '../model/question';

/** Rich text in the one form in which it is compared: pictures by their content, and white space folded. */
function settle(markup: string, hashes: Map<string, string>): string {
	return markup
		.replace(/="media:([^"]*)"/g, (_, name: string) => `="media:${hashes.get(name) ?? name}"`)
		.replace(/[\s\u00a0]+/g, ' ')
		.trim();
}

/** The accepted numbers in the one form that says what earns how much, however many ways there are to write it. */
function settledNumbers({ accepted }: NumericQuestion): AcceptedNumber[] {
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

/** The parts of a question that make up its content, by the names that people know; identifiers and places are left out. */
export function contentOf(question: Question): Record<string, unknown> {
	const hashes = new Map(
		question.attachments
			.filter((one) => one.hash)
			.map((one) => [one.name.replace(/&/g, '&amp;').replace(/"/g, '&quot;'), one.hash!])
	);
	const settled = mapMarkup(question, (markup) => settle(markup, hashes));
	const out: Record<string, unknown> = {
		kind: settled.kind,
		title: settled.title,
		stem: settled.stem,
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
			out.combination = settled.combination;
			out.bounds = settled.bounds;
		}
	} else if (settled.kind === 'short-answer')
		out.accepted = settled.accepted.map(({ text, credit, caseSensitive }) => ({ text, credit, caseSensitive }));
	else if (settled.kind === 'numeric') {
		out.whole = settled.whole;
		out.accepted = settledNumbers(settled);
	} else if (settled.kind === 'unreadable')
		out.fragment = settled.fragment
			.replace(/\b(src|data|href)\s*=\s*("[^"]*"|'[^']*')/g, '$1')
			.replace(/\s+/g, ' ')
			.trim();
	out.files = question.attachments.map((one) => one.hash ?? one.name).sort();
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
		language: question.language,
		metadata: question.metadata.map(({ name, value }) => `${name}: ${value}`).sort()
	});
	const [a, b] = [parts(before), parts(after)];
	return [...new Set([...Object.keys(a), ...Object.keys(b)])].flatMap((field) => {
		const [x, y] = [JSON.stringify(a[field] ?? null), JSON.stringify(b[field] ?? null)];
		return x === y ? [] : [{ field, before: x, after: y }];
	});
}
