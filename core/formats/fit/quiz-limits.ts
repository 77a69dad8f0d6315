/** How much of a quiz a format has a place for. */
export interface QuizLimits {
	/** Whether it has quizzes at all. */
	carries: boolean;
	/** Whether a quiz may have several parts; else all of them become one. */
	parts: boolean;
	/** Whether a part may draw so many of its questions. */
	draws: boolean;
	/** Whether a part may say that it draws more than it has; else all of them are drawn. */
	overdraws: boolean;
	/** Whether a part may give the points of its questions. */
	points: boolean;
	/** Whether the questions of a part may be put in a random order. */
	shuffles: boolean;
	/** Whether a question may stand in several quizzes; else it stands in the first. */
	shares: boolean;
	/** Whether its parts may come in a random order. */
	mixes: boolean;
	/** Whether questions of a part may come whole or not at all, where all that it draws from are of one size. */
	groups: boolean;
	/** Whether it has pools, quotas, pairs, groups and orders, and all that is around a quiz. */
	sheets: boolean;
	/** Whether it has instructions, a time limit, also one that is not of whole minutes, and a number of attempts. */
	instructions: boolean;
	minutes: boolean;
	seconds: boolean;
	attempts: boolean;
	/** Whether it says that feedback and right answers are shown afterwards, and one's own answers. */
	review: boolean;
	ownAnswers: boolean;
	/** Whether it has a pass mark, of the points of the whole quiz. */
	pass: boolean;
}

/** What of a quiz a format may have no place for, as it is called in the documentation, and what becomes of it there. */
export const quizTraits: { name: keyof QuizLimits; title: string; otherwise: string }[] = [
	{ name: 'carries', title: 'quizzes', otherwise: 'quizzes stay behind, and their questions go' },
	{ name: 'parts', title: 'several parts', otherwise: 'all parts become one' },
	{ name: 'draws', title: 'draws', otherwise: 'a part gives all of its questions' },
	{ name: 'overdraws', title: 'a draw of more than there are', otherwise: 'as many are drawn as there are' },
	{ name: 'points', title: 'points of a part for each question', otherwise: 'questions keep their own points' },
	{ name: 'shuffles', title: 'random order of a part', otherwise: 'a part keeps the order of the file' },
	{ name: 'shares', title: 'a question in several quizzes', otherwise: 'it stands in the first' },
	{ name: 'mixes', title: 'parts in random order', otherwise: 'parts come in their order' },
	{
		name: 'groups',
		title: 'groups that come whole, where all that a part draws from are of one size',
		otherwise: 'they may be torn'
	},
	{
		name: 'sheets',
		title: 'pools, quotas, pairs, other groups, orders, dates, the grade, a description',
		otherwise:
			'they are not written; quotas whose numbers come out even become parts that give exactly the same, and drawn forms can be sent instead'
	},
	{ name: 'instructions', title: 'instructions', otherwise: 'they are not written' },
	{ name: 'minutes', title: 'a time limit', otherwise: 'it is not written' },
	{ name: 'seconds', title: 'a time limit in parts of a minute', otherwise: 'it is rounded up to minutes' },
	{ name: 'attempts', title: 'the number of attempts', otherwise: 'it is not written' },
	{ name: 'review', title: 'whether feedback and right answers are shown afterwards', otherwise: 'it is not written' },
	{
		name: 'ownAnswers',
		title: 'whether the student’s own answers are shown afterwards',
		otherwise: 'it is not written'
	},
	{
		name: 'pass',
		title: 'a pass mark, where every student gets the same points',
		otherwise: 'it is not written'
	}
];

/** A format that holds the parts of quizzes, and none of what is around them. */
export const wholeQuizzes: QuizLimits = {
	carries: true,
	parts: true,
	draws: true,
	overdraws: false,
	points: true,
	shuffles: true,
	shares: true,
	mixes: false,
	groups: false,
	sheets: false,
	instructions: false,
	minutes: false,
	seconds: false,
	attempts: false,
	review: false,
	ownAnswers: false,
	pass: false
};

/** A format that holds them to the letter, also what cannot be drawn. */
export const exactQuizzes: QuizLimits = {
	carries: true,
	parts: true,
	draws: true,
	overdraws: true,
	points: true,
	shuffles: true,
	shares: true,
	mixes: true,
	groups: true,
	sheets: true,
	instructions: true,
	minutes: true,
	seconds: true,
	attempts: true,
	review: true,
	ownAnswers: true,
	pass: true
};

/** A format that has no quizzes. */
export const noQuizzes: QuizLimits = { ...wholeQuizzes, carries: false };
