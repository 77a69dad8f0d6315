import { blanksIn, replaceBlanks } from '../../../markup/markers';
import { plainText } from '../../../markup/text';
import { markupOfText } from '../../../markup/clean';
import { isChoice, type Question } from '../../../kinds';
import { serialise } from '../../../xml/serialise';
import { parseXml } from '../../../xml/parse';
import { features } from '../../fit/features';
import type { Limits } from '../../fit/fit';
import { noQuizzes, wholeQuizzes, type QuizLimits } from '../../fit/quiz-limits';
import { ways } from '../../fit/nearest';

const keep = (without: string[]) => features.map((one) => one.name).filter((name) => !without.includes(name));

const lost12 = [
	'stimulus',
	'odd-language',
	'unset-points',
	'no-points',
	'partly-feedback',
	'lost-keys',
	'odd-truth',
	'odd-whole',
	'keyless-all',
	'unequal-all',
	'bounds',
	'patterns',
	'unit',
	'word-bank',
	'mixed-bank',
	'uses',
	'open-all',
	'outside'
];

/** A sign that no text has, to keep the places of blanks while their text becomes plain. */
const mark = '\ue002';
const marked12 = new RegExp(`${mark}(\\d+)${mark}`, 'g');

/** The place of each blank in a line of its own level: deeper ones have no place in a flow. */
function flatBlanks(question: Question): Question {
	if (question.kind !== 'fill-blanks') return question;
	const nodes = parseXml(`<x>${question.stem}</x>`).root?.children ?? [];
	const fits = nodes.every((node) => {
		if (typeof node === 'string' || !blanksIn(serialise([node])).length || node.attributes.class === 'blank')
			return true;
		return (
			node.name === 'p' &&
			node.children.every(
				(child) =>
					typeof child === 'string' || child.attributes.class === 'blank' || !blanksIn(serialise([child])).length
			)
		);
	});
	if (fits) return question;
	const stem = nodes
		.map((node) => {
			const text = serialise([node]);
			if (!blanksIn(text).length) return text;
			const marks: string[] = [];
			const marked = replaceBlanks(text, (identifier) => {
				marks.push(identifier);
				return `${mark}${marks.length - 1}${mark}`;
			});
			const line = markupOfText(plainText(marked)).replace(
				marked12,
				(_, at: string) => `<span class="blank" id="${marks[Number(at)]}"/>`
			);
			return nodes.length > 1 ? `<p>${line}</p>` : line;
		})
		.join('');
	return { ...question, stem };
}

const tidyText = (text: string) => text.replace(/\s+/g, ' ').trim();

function settle12(given: Question): { question: Question; what: string[] } {
	const what: string[] = [];
	let question = given;
	const metadata = question.metadata
		.map(({ name, value }) => ({ name: tidyText(name), value: value.trim() }))
		.filter((one, at, all) => one.name && all.findIndex((other) => other.name === one.name) === at);
	if (JSON.stringify(metadata) !== JSON.stringify(question.metadata)) {
		question = { ...question, metadata };
		what.push('of metadata with one name the first is kept');
	}
	const tags = question.tags.flatMap((tag) => tag.split(/\s*[,;]\s*/)).filter(Boolean);
	if (tags.join() !== question.tags.join()) {
		question = { ...question, tags: [...new Set(tags)] };
		what.push('tags with a comma become several');
	}
	const flat = flatBlanks(question);
	if (flat !== question) {
		question = flat;
		what.push('blanks within tables and the like move into plain lines');
	}
	if (question.kind === 'matching' && question.left.length < 2) {
		const [first] = ways.find((way) => way.from === 'matching')!.change(question, 1);
		if (first) question = { ...first, identifier: question.identifier, title: question.title };
		what.push('a matching with a single thing on the left becomes a choice');
	}
	if (isChoice(question) && question.kind === 'multiple-response' && question.combination === 'sum') {
		const most = question.options.filter((one) => one.credit > 0).reduce((sum, one) => sum + one.credit, 0);
		if (most > 1 + 1e-6) {
			question = { ...question, bounds: { lower: null, upper: 1 } };
			what.push('no more than all the points can be earned');
		}
	}
	return { question, what };
}

/** What a QTI 1.2 package holds. */
export const limits12: Limits = {
	holds: {
		'true-false': true,
		'multiple-choice': true,
		'multiple-response': true,
		'short-answer': true,
		numeric: true,
		'fill-blanks': true,
		matching: true,
		ordering: true,
		essay: true,
		'file-upload': false,
		hotspot: true,
		'label-image': false,
		calculated: false,
		information: true,
		unreadable: false
	},
	features: keep(lost12),
	carries: (fragment) => /^<item\b/.test(fragment) && !/\b(uri|entityref)\s*=/.test(fragment),
	settle: settle12
};

/** What a single QTI 1.2 file holds: all but pictures. */
export const limits12Bare: Limits = {
	...limits12,
	holds: { ...limits12.holds, hotspot: false },
	features: keep([...lost12, 'pictures'])
};

/** What the QTI profile of Common Cartridge holds. */
export const cartridgeLimits: Limits = {
	holds: {
		'true-false': true,
		'multiple-choice': true,
		'multiple-response': true,
		'short-answer': true,
		numeric: false,
		'fill-blanks': false,
		matching: false,
		ordering: false,
		essay: true,
		'file-upload': false,
		hotspot: false,
		'label-image': false,
		calculated: false,
		information: false,
		unreadable: false
	},
	features: keep([
		...lost12,
		'hints',
		'metadata',
		'difficulty',
		'tags',
		'negative-credit',
		'partial-credit',
		'one-key',
		'credit-by-option',
		'text-credit'
	]),
	carries: () => false,
	settle(given) {
		let question = given;
		const what: string[] = [];
		const category = question.category
			.flatMap((one) => one.split('/'))
			.map(tidyText)
			.filter(Boolean);
		if (category.join('\n') !== question.category.join('\n')) {
			question = { ...question, category };
			what.push('a stroke in the name of a category parts it');
		}
		if (question.points === 0) {
			question = { ...question, points: null };
			what.push('points of 0 are left out');
		}
		if (question.kind === 'short-answer') {
			const some = question.accepted.filter((one) => one.match === 'contains').length;
			if (some && some < question.accepted.length) {
				question = { ...question, accepted: question.accepted.map(({ match: _, ...one }) => one) };
				what.push('answers that only have to contain a text have to be that text, where others have to be');
			}
		}
		return { question, what };
	}
};

/** What QTI 1.2 holds of a quiz: it has no points of a part, and no attempts. */
export const quizzes12: QuizLimits = {
	...wholeQuizzes,
	points: false,
	mixes: true,
	groups: true,
	instructions: true,
	minutes: true,
	seconds: true,
	review: true,
	pass: true
};

/** What a cartridge holds of a quiz: one list of questions, which stand in it and nowhere else (Common Cartridge, assessment profile). */
export const cartridgeQuizzes: QuizLimits = {
	...noQuizzes,
	carries: true,
	parts: false,
	draws: false,
	points: false,
	shuffles: false,
	shares: false,
	instructions: true,
	minutes: true,
	attempts: true,
	review: true
};
