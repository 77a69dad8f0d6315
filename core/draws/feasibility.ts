import type { DrawPart } from './part';

/** Whether the parts of a quiz can be filled together. */
export interface Feasibility {
	/** Why not, for people, each with the place of the part that it speaks of; empty where they can. */
	refusals: { part: number; message: string }[];
	/** One way to fill them, by part, where they can be. */
	filling: number[][] | null;
}

/**
 * Finds out exactly whether all parts can be filled at once without giving a question twice: a matching of the parts'
 * places with questions by augmenting paths (Kuhn). Where none fills them all, the part whose place stays empty is named.
 */
export function feasibility(parts: readonly DrawPart[]): Feasibility {
	const pools = parts.map((part) => [...new Set(part.pool)]);
	const asked = parts.map((part, at) => part.draw ?? pools[at]!.length);
	const refusals = asked.flatMap((count, part) => {
		if (count < 1)
			return [
				{
					part,
					message: pools[part]!.length
						? 'It draws no question. Say how many.'
						: 'Its pool is empty. Choose categories that hold questions.'
				}
			];
		const have = pools[part]!.length;
		return count > have
			? [
					{
						part,
						message: `It wants ${count} questions and its pool holds ${have}. Draw ${have ? `${have} at the most` : 'from another pool'}, or widen the pool.`
					}
				]
			: [];
	});
	if (refusals.length) return { refusals, filling: null };

	const holder = new Map<number, number>();
	const filling: Set<number>[] = parts.map(() => new Set());
	const place = (start: number): boolean => {
		// breadth first over parts: a part that holds a question may give it up for another of its own
		const cameBy = new Map<number, { part: number; question: number }>();
		const seen = new Set([start]);
		const queue = [start];
		for (let part = queue.shift(); part !== undefined; part = queue.shift()) {
			for (const question of pools[part]!) {
				const owner = holder.get(question);
				if (owner === part || (owner !== undefined && seen.has(owner))) continue;
				if (owner !== undefined) {
					seen.add(owner);
					cameBy.set(owner, { part, question });
					queue.push(owner);
					continue;
				}
				let free = question;
				for (let taker = part; ;) {
					holder.set(free, taker);
					filling[taker]!.add(free);
					const step = cameBy.get(taker);
					if (!step) return true;
					filling[taker]!.delete(step.question);
					free = step.question;
					taker = step.part;
				}
			}
		}
		return false;
	};
	for (const [part, count] of asked.entries()) {
		for (let n = 0; n < count; n += 1) {
			if (place(part)) continue;
			const rivals = parts.flatMap((_, at) =>
				at !== part && pools[at]!.some((question) => pools[part]!.includes(question)) ? [at + 1] : []
			);
			return {
				refusals: [
					{
						part,
						message: `It shares its questions with part ${rivals.join(', ')}, and together they want more than there are: no question is given twice. ${count - n} more ${count - n === 1 ? 'is' : 'are'} needed.`
					}
				],
				filling: null
			};
		}
	}
	return { refusals: [], filling: filling.map((one) => [...one]) };
}
