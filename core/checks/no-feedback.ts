import { isChoice } from '../kinds';
import type { OneCheck } from './check';

/** Students are told nothing once they have answered. */
export const noFeedback: OneCheck = {
	id: 'no-feedback',
	version: 1,
	scope: 'one',
	isOff: true,
	title: 'No feedback',
	short: 'no feedback',
	severity: 'untidy',
	why: 'Whoever answers wrong learns that it was wrong, and nothing else.',
	find(question) {
		if (question.kind === 'information' || question.kind === 'unreadable') return [];
		const told = [
			...Object.values(question.feedback),
			...(isChoice(question) ? question.options.map(({ feedback }) => feedback) : [])
		];
		return told.some(Boolean)
			? []
			: [{ message: 'Nothing is said to students after they have answered. Write why an answer is right or wrong.' }];
	}
};
