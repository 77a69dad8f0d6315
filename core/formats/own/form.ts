import { mapMarkup, type Question } from '../../kinds';
import { features } from '../fit/features';
import { everyKind, type Limits } from '../fit/fit';
import type { PartToWrite, QuizToWrite } from '../../model/quiz';
import type { QuizSettings } from '../../model/quiz-settings';
import { renamedPart, renamedRules, type CarriedPart, type CarriedRules } from '../../model/sheet';
import type { MediaFiles } from '../package/files';
import { escapeAttribute } from '../../xml/serialise';

/** The name and the version of our own forms, which each of them carries at its head. */
export const ownName = 'yarn-barrow-questions';
export const ownVersion = 1;

/** Our own forms hold everything. */
export const ownLimits: Limits = {
	holds: everyKind,
	features: features.map((feature) => feature.name),
	carries: () => true,
	carriesDamaged: true
};

type Sheet = CarriedPart<number>;

/** A part of a quiz in our own forms; a pool and quotas stand beside the questions that it has now. */
export type OwnPart = Omit<PartToWrite, 'sheet' | 'exact'> & Partial<Sheet>;

/** A quiz in our own forms: its parts, pairs and groups name questions by their place, from 1. */
export interface OwnQuiz extends Partial<CarriedRules<number>> {
	identifier: string;
	title: string;
	parts: OwnPart[];
	settings?: Partial<QuizSettings>;
}

/** A quiz with the places of its questions from 1. */
export function ownQuiz({ identifier, title, parts, settings, rules }: QuizToWrite): OwnQuiz {
	const next = (at: number) => at + 1;
	return {
		identifier,
		title,
		...(settings ? { settings } : {}),
		...(rules ? renamedRules(rules, next) : {}),
		parts: parts.map(({ sheet, exact: _, ...part }) => ({
			...part,
			questions: part.questions.map(next),
			...(sheet ? renamedPart(sheet, next) : {})
		}))
	};
}

/**
 * A question whose files are named by their content, so that two files of one name stay apart, and one content that has
 * two names is one file. `files` knows how each content is called in the file that is written.
 */
export function withOwnNames(question: Question, files: MediaFiles): Question {
	files.fresh(question);
	const names = new Map(
		question.attachments.flatMap(({ name, hash }) => (hash === null ? [] : [[name, files.paths.get(hash)!] as const]))
	);
	if (!names.size) return question;
	const escaped = new Map([...names].map(([from, to]) => [escapeAttribute(from), escapeAttribute(to)]));
	const renamed = mapMarkup(question, (markup) =>
		markup.replace(/="media:([^"]*)"/g, (_, name: string) => `="media:${escaped.get(name) ?? name}"`)
	);
	const attachments = question.attachments.map((one) => ({ ...one, name: names.get(one.name) ?? one.name }));
	return {
		...renamed,
		attachments: attachments.filter((one, at) => attachments.findIndex(({ name }) => name === one.name) === at),
		...('picture' in renamed
			? { picture: { ...renamed.picture, name: names.get(renamed.picture.name) ?? renamed.picture.name } }
			: {})
	};
}
