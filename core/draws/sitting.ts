import type { DrawPart } from './part';
import { Generator } from '../numbers/generator';
import { feasibility } from './feasibility';

/** One student's copy of a quiz: the questions of each part in order. */
export interface Sitting {
	seed: string;
	parts: number[][];
}

const plainTries = 200;

/** Questions of a part in the order of its pool. */
function inOrder(part: DrawPart, questions: number[]): number[] {
	const place = new Map(part.pool.map((question, at) => [question, at]));
	return questions.sort((a, b) => place.get(a)! - place.get(b)!);
}

/** How many questions a part asks for. */
export function wanted(part: DrawPart): number {
	return part.draw ?? part.pool.length;
}

/**
 * Draws a sitting from a seed, without replacement: no question comes twice, also where parts share a pool. Each part
 * draws uniformly from what the parts before it have left; where that leaves a later part short the whole draw is
 * rejected and made anew, so that every sitting that can be filled this way keeps its share. Gives null where the
 * parts cannot be filled together. The pools' order does not matter for what is drawn; a part that keeps its order shows
 * what was drawn in it.
 */
export function drawSitting(parts: readonly DrawPart[], seed: string): Sitting | null {
	const sheet = feasibility(parts);
	if (sheet.refusals.length) return null;
	const generator = new Generator(seed);
	const pools = parts.map((part) => [...new Set(part.pool)].sort((a, b) => a - b));
	const apart = new Set(pools.flat()).size === pools.reduce((sum, pool) => sum + pool.length, 0);
	for (let attempt = 0; attempt < (apart ? 1 : plainTries); attempt += 1) {
		const used = new Set<number>();
		const drawn: number[][] = [];
		for (const [at, part] of parts.entries()) {
			const left = pools[at]!.filter((question) => !used.has(question));
			if (left.length < wanted(part)) break;
			const chosen = generator.shuffle(left, wanted(part));
			for (const question of chosen) used.add(question);
			drawn.push(part.shuffle ? chosen : inOrder(part, chosen));
		}
		if (drawn.length === parts.length) return { seed, parts: drawn };
	}
	// pools so tight that chance hardly finds a filling: one is built, with the questions in random order
	const order = generator.shuffle([...new Set(pools.flat())]);
	const rank = new Map(order.map((question, at) => [question, at]));
	const filled = feasibility(
		parts.map((part, at) => ({ ...part, pool: [...pools[at]!].sort((a, b) => rank.get(a)! - rank.get(b)!) }))
	);
	return {
		seed,
		parts: filled.filling!.map((questions, at) =>
			parts[at]!.shuffle ? generator.shuffle(questions) : inOrder(parts[at]!, questions)
		)
	};
}

/** The order in which a sitting shows the options of a question: pinned ones stay, the others are shuffled. */
export function optionOrder(pinned: readonly boolean[], seed: string, question: number): number[] {
	const generator = new Generator(`${seed}/${question}`);
	const free = generator.shuffle(pinned.flatMap((one, at) => (one ? [] : [at])));
	return pinned.map((one, at) => (one ? at : free.shift()!));
}
