import { bounds, keptOfSource } from '../../model/bounds';
import { overBounds } from '../../kinds/over-bounds';
import { visible } from '../../markup/visible';
import { emptyCommon } from '../../model/question';
import type { Question } from '../../kinds';
import type { Report } from '../../reports/report';
import type { ReadEvent, ReadQuestion } from '../format';

// signs that are seen nowhere and do harm: control characters but tab and line ends, and halves of surrogate pairs
/* eslint-disable no-control-regex */
const harmful =
	/[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f-\u009f]|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g;
// most texts have none of those, which is seen faster than they are found
const mayHarm = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f-\u009f\ud800-\udfff]/;
/* eslint-enable no-control-regex */
/** Signs that turn the direction of what follows, or join nothing: seen in names as what they are. */
const directing = /[\u200e\u200f\u202a-\u202e\u2066-\u2069]/g;
const longestMessage = 1500;
const longestName = 1000;

const unharmed = (text: string) => (mayHarm.test(text) ? text.replace(harmful, '\ufffd') : text);
const readable = (text: string) => unharmed(text).replace(directing, '\ufffd');

/** The same value with harmful signs taken out of every text in it; the very same where there are none. */
function withoutHarm<T>(value: T): T {
	if (typeof value === 'string') return unharmed(value) as T;
	if (Array.isArray(value)) {
		let same = true;
		const list = value.map((entry: unknown) => {
			const next = withoutHarm(entry);
			if (next !== entry) same = false;
			return next;
		});
		return same ? value : (list as T);
	}
	if (typeof value !== 'object' || value === null) return value;
	const changed: [string, unknown][] = [];
	for (const [key, field] of Object.entries(value)) {
		const next: unknown = withoutHarm(field);
		if (next !== field) changed.push([key, next]);
	}
	return changed.length ? { ...value, ...Object.fromEntries(changed) } : value;
}

/** Whether “\ufffd” stands in any text of a value. */
function holdsMark(value: unknown): boolean {
	if (typeof value === 'string') return value.includes('\ufffd');
	return typeof value === 'object' && value !== null && Object.values(value).some(holdsMark);
}

const cutReport = (report: Report): Report => ({
	...report,
	message: cut(readable(report.message), longestMessage),
	...(report.place ? { place: { ...report.place, file: cut(readable(report.place.file), longestName) } } : {})
});
const cut = (text: string, most: number) => (text.length > most ? `${text.slice(0, most - 1)}…` : text);

/** A question that is beyond the bounds, kept with the beginning of its source; the file itself stays as it came. */
function kept({ question, fragment }: ReadQuestion, reason: string): ReadQuestion {
	const { identifier, title, category, source } = question;
	const beginning = fragment.slice(0, keptOfSource);
	const held: Question = {
		...emptyCommon(cut(identifier, 190), cut(title, 200)),
		category,
		source,
		kind: 'unreadable',
		reason: `${reason} Make several of it, or shorten it, and load it again.`,
		fragment: beginning
	};
	return { type: 'question', question: held, fragment: beginning, reports: [] };
}

/** The same question with its categories by other names and its tags as they are shown; the very same where nothing differs. */
function named(question: Question, category: string[]): Question {
	const tags = question.tags.map(visible);
	const same = category.every((name, at) => name === question.category[at]);
	return same && tags.every((tag, at) => tag === question.tags[at]) ? question : { ...question, category, tags };
}

const nameOfCategory = (name: string) => cut(visible(unharmed(name)), 255);

function guardedQuestion(event: ReadQuestion): ReadQuestion {
	const over = overBounds(event.question);
	// the cleaning of rich text has put “\ufffd” for some of them already
	const marked = !over && !event.fragment.includes('\ufffd') && holdsMark(event.question);
	const question = withoutHarm(over ? kept(event, over).question : event.question);
	const names = question.category.map(nameOfCategory);
	const reports = over ? [] : event.reports.map(cutReport);
	if (!over && (marked || question !== event.question))
		reports.push({
			rule: 'odd-signs',
			severity: 'untidy',
			message:
				'Signs that nobody sees, such as control characters or halves of letters, were put out of its text; “\ufffd” stands in their place.',
			...(question.source ? { place: { file: question.source.file, line: question.source.line } } : {})
		});
	const fragment = event.fragment.length > bounds.source ? event.fragment.slice(0, keptOfSource) : event.fragment;
	return {
		...event,
		question: named(question, names),
		fragment: unharmed(fragment),
		reports
	};
}

/**
 * What is read, within bounds: questions that are too large to be worked with are kept with a reason, harmful signs are out
 * of every text and every message, and after so many questions reading ends with words.
 */
export async function* guarded(
	events: AsyncGenerator<ReadEvent>,
	mostQuestions: number = bounds.questions
): AsyncGenerator<ReadEvent> {
	let questions = 0;
	for await (const event of events) {
		if (event.type === 'question') {
			questions += 1;
			if (questions > mostQuestions) {
				yield {
					type: 'report',
					report: {
						rule: 'too-many-questions',
						severity: 'broken',
						message: `The file holds more than ${mostQuestions.toLocaleString('en')} questions, which is the most that one load can have. Those were read, and the others were not. Take the file apart.`
					}
				};
				return;
			}
			yield guardedQuestion(event);
		} else if (event.type === 'report')
			yield {
				...event,
				report: cutReport(event.report),
				...(event.question === undefined ? {} : { question: cut(readable(event.question), 200) })
			};
		else if (event.type === 'title') yield { ...event, title: cut(readable(event.title), 255) };
		else if (event.type === 'quiz')
			yield {
				...event,
				quiz: {
					...event.quiz,
					title: cut(readable(event.quiz.title), 255),
					parts: event.quiz.parts.map((part) => ({ ...part, title: cut(readable(part.title), 255) }))
				}
			};
		else if (event.type === 'category') yield { ...event, path: event.path.map(nameOfCategory) };
		else if (event.type === 'other')
			yield { ...event, other: { ...event.other, path: cut(readable(event.other.path), longestName) } };
		else yield event;
	}
}
