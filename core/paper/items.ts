/** What one student's paper earned: by question, the share of its points; null where it was not on the paper or is not marked. */
export interface MarkedPaper {
	student: string;
	form: string;
	credits: Map<number, number | null>;
	points: number;
	outOf: number;
	/** The options that were marked, by question, by the identifiers of the bank. */
	options: Map<number, readonly string[]>;
}

/** How one question did over all papers that had it. */
export interface ItemFigures {
	question: number;
	papers: number;
	/** The mean share of its points: 1 is easy (the p value of classical test theory). */
	ease: number;
	/**
	 * The correlation of its credit with the share of the points of all other questions of the same paper (corrected
	 * item–total correlation); null where one of them does not vary.
	 */
	discrimination: number | null;
	/** How often each option was marked, by its identifier. */
	options: Map<string, number>;
}

/** Pearson's correlation of pairs; null where one side does not vary. */
export function correlation(pairs: readonly (readonly [number, number])[]): number | null {
	const count = pairs.length;
	if (count < 3) return null;
	const mean = (side: 0 | 1) => pairs.reduce((sum, pair) => sum + pair[side], 0) / count;
	const [one, other] = [mean(0), mean(1)];
	let [both, first, second] = [0, 0, 0];
	for (const [a, b] of pairs) {
		both += (a - one) * (b - other);
		first += (a - one) ** 2;
		second += (b - other) ** 2;
	}
	return first > 1e-12 && second > 1e-12 ? both / Math.sqrt(first * second) : null;
}

/** The figures of each question over marked papers; `pointsOf` gives what a question is worth on them. */
export function itemFigures(papers: readonly MarkedPaper[], pointsOf: (question: number) => number): ItemFigures[] {
	const found = new Map<number, { credits: [number, number][]; options: Map<string, number> }>();
	for (const paper of papers)
		for (const [question, credit] of paper.credits) {
			if (credit === null) continue;
			const item = found.get(question) ?? { credits: [], options: new Map<string, number>() };
			found.set(question, item);
			const worth = pointsOf(question);
			const rest = paper.outOf - worth;
			item.credits.push([credit, rest > 0 ? (paper.points - credit * worth) / rest : 0]);
			for (const option of paper.options.get(question) ?? [])
				item.options.set(option, (item.options.get(option) ?? 0) + 1);
		}
	return [...found].map(([question, { credits, options }]) => ({
		question,
		papers: credits.length,
		ease: credits.reduce((sum, [credit]) => sum + credit, 0) / credits.length,
		discrimination: correlation(credits),
		options
	}));
}
