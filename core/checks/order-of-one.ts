import type { OneCheck } from './check';

/** Something to put in order, and nothing that could stand in another. */
export const orderOfOne: OneCheck = {
	id: 'order-of-one',
	version: 1,
	scope: 'one',
	title: 'Fewer than two things to put in order',
	short: 'nothing to order',
	severity: 'broken',
	why: 'One thing alone stands in one order only, so everybody would be right without a thought.',
	find: (question) =>
		question.kind === 'ordering' && question.items.length < 2
			? [
					{
						message: `There is ${question.items.length ? 'one thing alone' : 'nothing'} to put in order. Write the others.`
					}
				]
			: []
};
