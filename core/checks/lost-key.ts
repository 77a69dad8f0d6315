import { isChoice } from '../kinds';
import type { OneCheck } from './check';

/** The key names an option that is not there. */
export const lostKey: OneCheck = {
	id: 'lost-key',
	version: 1,
	scope: 'one',
	title: 'Key that points at nothing',
	short: 'lost key',
	severity: 'broken',
	why: 'The key names an option that is not there, or that is there twice, so what was meant to be right is lost.',
	find(question) {
		if (!isChoice(question) || !question.lostKeys.length) return [];
		const names = question.lostKeys.map((key) => `“${key}”`).join(', ');
		return [
			{
				message: `The key reads ${names}, and ${question.lostKeys.length > 1 ? 'those are not options' : 'that is not one option'} of this question, which has ${question.options.length}. Mark the right option.`
			}
		];
	}
};
