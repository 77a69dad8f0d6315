import type { OneCheck } from './check';

/** Questions that were recognised and cannot be held: they are kept as they came. */
export const unreadable: OneCheck = {
	id: 'unreadable',
	version: 1,
	scope: 'one',
	title: 'Cannot be read',
	short: 'unreadable',
	severity: 'broken',
	why: 'It is kept as it came, so that nothing is lost, and cannot be shown, marked or put into a quiz.',
	find: (question) =>
		question.kind === 'unreadable'
			? [
					{
						message: question.reason,
						...(question.faultLine === undefined ? {} : { line: question.faultLine })
					}
				]
			: [],
	mend: {
		title: 'Put the markup right and read it',
		fits: (question) => question.kind === 'unreadable' && question.faultLine !== undefined,
		apply: (question, { readAgain }) =>
			question.kind === 'unreadable' && question.faultLine !== undefined ? (readAgain(question) ?? question) : question
	}
};
