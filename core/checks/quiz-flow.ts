/** A part that draws so many different questions out of a pool, by numbers. */
export interface Drawing {
	wanted: number;
	pool: readonly number[];
}

/** Parts that cannot be filled together: which, how many they want, and how many different questions they have. */
export interface Lacking {
	parts: number[];
	wanted: number;
	there: number;
}

/** The questions of all pools by the parts that can draw them: what the same parts can draw is one cell. */
function cellsOf(drawings: readonly Drawing[]): { parts: number[]; size: number }[] {
	const partsOf = new Map<number, number[]>();
	drawings.forEach(({ pool, wanted }, at) => {
		if (!wanted) return;
		for (const number of new Set(pool)) {
			const parts = partsOf.get(number);
			if (parts) parts.push(at);
			else partsOf.set(number, [at]);
		}
	});
	const cells = new Map<string, { parts: number[]; size: number }>();
	for (const parts of partsOf.values()) {
		const cell = cells.get(parts.join());
		if (cell) cell.size += 1;
		else cells.set(parts.join(), { parts, size: 1 });
	}
	return [...cells.values()];
}

/**
 * Whether parts can be filled together with different questions: the greatest flow from parts through cells (Ford and
 * Fulkerson, 1956). Where it falls short, the parts on the near side of the least cut want more than they have (Hall, 1935);
 * null where all can be filled.
 */
export function leastLacking(drawings: readonly Drawing[]): Lacking | null {
	const cells = cellsOf(drawings);
	const left = drawings.map(({ wanted }) => wanted);
	const room = cells.map(({ size }) => size);
	const flow = drawings.map(() => new Map<number, number>());
	const cellsOfPart = drawings.map((_, part) => cells.flatMap((cell, at) => (cell.parts.includes(part) ? [at] : [])));
	for (let part = 0; part < drawings.length; part += 1)
		while (left[part]! > 0) {
			// a way from this part to a cell with room, on which others give up what they have for something else
			const takenBy = new Map<number, number>();
			const givenUp = new Map<number, number>();
			const queue = [part];
			let end: number | null = null;
			for (let next = queue.shift(); next !== undefined && end === null; next = queue.shift())
				for (const cell of cellsOfPart[next]!) {
					if (takenBy.has(cell)) continue;
					takenBy.set(cell, next);
					if (room[cell]! > 0) {
						end = cell;
						break;
					}
					for (const holder of cells[cell]!.parts) {
						if (holder === part || givenUp.has(holder) || !flow[holder]!.get(cell)) continue;
						givenUp.set(holder, cell);
						queue.push(holder);
					}
				}
			if (end === null) {
				const parts = [part, ...givenUp.keys()].sort((a, b) => a - b);
				const there = cells.reduce(
					(sum, cell) => (cell.parts.some((at) => parts.includes(at)) ? sum + cell.size : sum),
					0
				);
				return { parts, wanted: parts.reduce((sum, at) => sum + drawings[at]!.wanted, 0), there };
			}
			room[end]! -= 1;
			left[part]! -= 1;
			for (let cell = end; ;) {
				const taker = takenBy.get(cell)!;
				flow[taker]!.set(cell, (flow[taker]!.get(cell) ?? 0) + 1);
				if (taker === part) break;
				cell = givenUp.get(taker)!;
				flow[taker]!.set(cell, flow[taker]!.get(cell)! - 1);
			}
		}
	return null;
}
