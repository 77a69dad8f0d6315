/** What a question may lack, in the order in which it is shown. */
export const lacks = ['key', 'verified', 'feedback', 'title', 'points'] as const;

/** One of those. */
export type Lack = (typeof lacks)[number];

/** What is lacking, in words. */
export const lackNames: Record<Lack, string> = {
	key: 'no key',
	verified: 'key not verified',
	feedback: 'no feedback',
	title: 'no title',
	points: 'no points'
};
