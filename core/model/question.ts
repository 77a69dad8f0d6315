import { array, number, object, string, type InferType } from 'yup';
import { type Fields, list, text, truth } from './fields';

/** Rich text: well-formed XHTML without a root element, cleaned by core/markup; pictures read `src="media:NAME"`. */
export type Markup = string;

const feedback = object({ general: string(), correct: string(), incorrect: string(), partly: string() }).defined();
const attachment = object({
	name: text(),
	mediaType: text(),
	hash: string().nullable().defined(),
	missing: truth(),
	/** Its size, and that of a picture in pixels, where they are known. */
	bytes: number(),
	width: number(),
	height: number()
}).defined();
const source = object({
	format: text(),
	file: text(),
	line: number().defined(),
	endLine: number().defined(),
	identifier: text()
});
const metadata = object({ name: text(), value: text() }).defined();
const stimulus = object({ identifier: text(), title: text(), content: text() });

/** What every kind of question has. `points` is null where the source is silent. */
export const commonFields = {
	identifier: text(),
	title: text(),
	stem: text(),
	points: number().nullable().defined().strict(),
	category: list(text()),
	tags: list(text()),
	language: string().nullable().defined(),
	feedback,
	hints: list(text()),
	/** How hard it is said to be, in the words of the source. */
	difficulty: string(),
	/** What several questions share, and a student reads before the stem. */
	stimulus: stimulus.default(undefined).optional(),
	attachments: list(attachment),
	metadata: list(metadata),
	/** Active content that cleaning took out, named for people: "script", "onerror handler". */
	removed: list(text()),
	/** Keys of the source that name nothing of the question, or more than one thing, until somebody marks its key. */
	lostKeys: array(text()),
	source: source.nullable().default(null)
};

/** What every kind of question has. `points` is null where the source is silent. */
export type QuestionCommon = Fields<typeof commonFields>;

/** What a student is told after answering; each part is there or not. */
export type Feedback = InferType<typeof feedback>;

/** A file that a question uses. `name` is its path in the package; `hash` its SHA-256 in hex once it is stored. */
export type Attachment = InferType<typeof attachment>;

/** A text or a picture that several questions refer to. */
export type Stimulus = InferType<typeof stimulus>;

/** The common part of a question with nothing in it yet. */
export function emptyCommon(identifier: string, title: string): QuestionCommon {
	return {
		identifier,
		title,
		stem: '',
		points: null,
		category: [],
		tags: [],
		language: null,
		feedback: {},
		hints: [],
		attachments: [],
		metadata: [],
		removed: [],
		source: null
	};
}

/**
 * A question out of what all have in common and what is its own. It is copied by Object.assign, which the engine does
 * many times as fast as spreading one object and adding to it; readers make every question this way.
 */
export function withCommon<Own extends { kind: string }>(common: QuestionCommon, own: Own): QuestionCommon & Own {
	return Object.assign({}, common, own);
}
