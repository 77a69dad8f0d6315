import { differences } from '../../compare/canonical';
import { kindName, kinds, type Kind, type Question } from '../../kinds';
import { escapeAttribute } from '../../xml/serialise';
import type { Loss } from '../../compare/loss';
import { features } from './features';
import { ways } from './nearest';

/** For a format that has every kind there is: one that writes the model itself, or whose writer is told of a new kind by the compiler. */
export const everyKind = Object.fromEntries(kinds.map((kind) => [kind, true])) as Record<Kind, true>;

/** What a format can hold: its kinds, and the features that it has a place for. */
export interface Limits {
	/** Whether it has each kind of question. */
	holds: Readonly<Record<Kind, boolean>>;
	features: readonly string[];
	/** Whether a question that could not be read can be carried on as it came. */
	carries: (fragment: string) => boolean;
	/** It carries such a question also where its markup is not well-formed: it keeps the source as text. */
	carriesDamaged?: boolean;
	/**
	 * How a question is brought into the format's own form once it fits otherwise; the words say what changes, and the note
	 * what other programs see though nothing changes here.
	 */
	settle?: (question: Question) => { question: Question; what: string[]; note?: string };
	/** Why a question that settling has given up as unreadable is left behind. */
	refuses?: string;
}

/**
 * Goes up by one whenever a format keeps, changes or loses other things than before, or says so in other words: what was
 * worked out by an older edition is worked out again.
 */
export const fitEdition = 1;

/** What is chosen for a dispatch. */
export interface FitOptions {
	/** How many numeric questions a calculated one becomes where the format has no such kind. */
	workedOut: number;
}

/** The options where nothing is said. */
export const defaultFit: FitOptions = { workedOut: 1 };

function toKinds(
	question: Question,
	limits: Limits,
	options: FitOptions,
	depth = 0
): { list: Question[]; what: string[] } {
	if (limits.holds[question.kind]) return { list: [question], what: [] };
	const known = ways.filter((way) => way.from === question.kind);
	// a way whose end the format knows is nearer than one that needs another step
	const way = known.find((one) => limits.holds[one.to]) ?? known[0];
	if (!way || depth > 4)
		return { list: [], what: [`there is no kind like “${kindName(question.kind)}” in this format`] };
	const list: Question[] = [];
	const what = [way.how];
	for (const made of withOwnFiles(way.change(question, options.workedOut))) {
		const next = toKinds(made, limits, options, depth + 1);
		list.push(...next.list);
		what.push(...next.what.filter((words) => !what.includes(words)));
	}
	return { list, what };
}

/** Several questions out of one, each with the files that it shows, and with those that none of them shows. */
function withOwnFiles(questions: Question[]): Question[] {
	if (questions.length < 2) return questions;
	const shown = questions.map((question) => {
		const words = JSON.stringify(question);
		return new Set(
			question.attachments.map(({ name }) => name).filter((name) => words.includes(`media:${escapeAttribute(name)}`))
		);
	});
	const anywhere = new Set(shown.flatMap((names) => [...names]));
	return questions.map((question, at) => ({
		...question,
		attachments: question.attachments.filter(({ name }) => shown[at]!.has(name) || !anywhere.has(name))
	}));
}

/** Makes a question fit a format: what is written for it, and what is lost on the way. */
export function fit(question: Question, limits: Limits, options: FitOptions = defaultFit): Loss {
	if (question.kind === 'unreadable') {
		const damaged = question.faultLine !== undefined;
		const carried = damaged ? limits.carriesDamaged === true : limits.carries(question.fragment.trim());
		const why = damaged
			? 'its markup is not well-formed; mend it first'
			: 'it could not be read, and its source is of another format';
		return {
			outcome: carried ? 'kept' : 'lost',
			what: carried ? [] : [why],
			fields: carried ? ['feedback', 'metadata', 'hints', 'stimulus'] : [],
			fitted: carried ? [question] : []
		};
	}
	const { list, what } = toKinds(question, limits, options);
	if (!list.length) return { outcome: 'lost', what, fields: [], fitted: [] };
	const notes = new Set<string>();
	const missing = features.filter((feature) => !limits.features.includes(feature.name));
	const settledAll = list.map((unsettled) => {
		let now = unsettled;
		for (const feature of missing) {
			const without = feature.without(now);
			if (without === now) continue;
			now = without;
			if (!what.includes(feature.otherwise)) what.push(feature.otherwise);
		}
		const settled = limits.settle?.(now);
		for (const words of settled?.what ?? []) if (!what.includes(words)) what.push(words);
		if (settled?.note) notes.add(settled.note);
		return settled?.question ?? now;
	});
	const fitted = settledAll.filter((one) => one.kind !== 'unreadable');
	if (fitted.length < settledAll.length && limits.refuses) {
		if (!fitted.length) return { outcome: 'lost', what: [limits.refuses], fields: [], fitted: [] };
		what.push(limits.refuses);
	}
	const [first] = fitted;
	const fields = first === question ? [] : [...new Set(differences(question, first!).map((one) => one.field))];
	// what is changed without any difference in what is asked and marked is no loss
	const said = [...(fields.length || fitted.length > 1 ? what : []), ...notes];
	return { outcome: said.length ? 'changed' : 'kept', what: said, fields, fitted };
}
