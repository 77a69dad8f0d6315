import { kindOf, mapMarkup, type Question } from '../kinds';

/** Rich text in the one form in which it is compared: pictures by their content, and white space folded. */
function settle(markup: string, hashes: Map<string, string>): string {
	return (
		markup
			.replace(/="media:([^"]*)"/g, (_, name: string) => `="media:${hashes.get(name) ?? name}"`)
			.replace(/[\s\u00a0]+/g, ' ')
			// most formats cannot tell a picture of which nothing is said from decoration
			.replace(/<img (?![^<>]*alt=")((?:class|xml:lang|src)="[^"]*"(?: (?:xml:lang|src)="[^"]*")*)/g, '<img $1 alt=""')
			// white space at the ends of a block shows nowhere
			.replace(
				/(<\/?(?:p|div|li|td|th|h[1-6]|dt|dd|ul|ol|table|tr|tbody|blockquote|caption)(?: [^<>]*)?>) | (?=<\/?(?:p|div|li|td|th|h[1-6]|dt|dd|ul|ol|table|tr|tbody|blockquote|caption)[ >/])/g,
				'$1'
			)
			.trim()
	);
}

/** The parts of a question that make up its content, by the names that people know; identifiers and places are left out. */
export function contentOf(question: Question): Record<string, unknown> {
	const hashes = new Map(
		question.attachments
			.filter((attachment) => attachment.hash)
			.map(({ name, hash }) => [name.replace(/&/g, '&amp;').replace(/"/g, '&quot;'), hash!])
	);
	const settled = mapMarkup(question, (markup) => settle(markup, hashes));
	const feedback = Object.entries(settled.feedback)
		.filter(([, markup]) => markup)
		.sort(([a], [b]) => (a < b ? -1 : 1));
	const content: Record<string, unknown> = {
		kind: settled.kind,
		title: settled.title,
		stem: settled.stem,
		stimulus: settled.stimulus ? settled.stimulus.content : '',
		points: settled.points,
		feedback: Object.fromEntries(feedback),
		hints: settled.hints
	};
	const own = kindOf(settled).content(settled, ({ name, width, height, alt }) => ({
		file: question.attachments.find((attachment) => attachment.name === name)?.hash ?? name,
		width,
		height,
		alt
	}));
	// the order of the parts is a part of the fingerprints that are kept
	Object.assign(content, own);
	// the same content under two names is one file
	content.files = [...new Set(question.attachments.map(({ hash, name }) => hash ?? name))].sort();
	return content;
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
