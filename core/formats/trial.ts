import { lookup } from '../model/lookup';
import { differences } from '../compare/canonical';
import type { Question } from '../kinds';

const fieldNames = lookup<string>({
	stem: 'the stem',
	title: 'the title',
	options: 'the options',
	accepted: 'the accepted answers',
	combination: 'how credit comes together',
	pairs: 'the pairs',
	presented: 'the order in which things are shown',
	tags: 'the tags',
	kind: 'the kind',
	category: 'the category',
	feedback: 'the feedback',
	shuffle: 'shuffling',
	points: 'the points',
	bounds: 'the bounds of the credit',
	files: 'the files',
	left: 'how often things are matched',
	right: 'how often things are matched',
	hints: 'the hints',
	rule: 'the rule of the order',
	language: 'the language',
	difficulty: 'the difficulty'
});

const mostRounds = 3;

/**
 * A question as a form of words brings it back, found by writing it and reading it again until nothing changes any
 * more; null where it does not come back as one question.
 */
export function byTrial(
	question: Question,
	again: (question: Question) => Question[]
): { question: Question; what: string[] } | null {
	let found = question;
	for (let round = 0; ; round += 1) {
		const [next, ...more] = again(found);
		if (!next || more.length || round > mostRounds) return null;
		const same = differences(found, next).length === 0;
		if (same) break;
		found = next;
	}
	const fields = differences(question, found).map((one) => one.field);
	if (!fields.length) return { question, what: [] };
	const names = [...new Set(fields.map((field) => fieldNames[field] ?? field))];
	return {
		question: { ...found, identifier: question.identifier, source: question.source },
		what: [`${names.join(', ')} cannot be written exactly in this form`]
	};
}
