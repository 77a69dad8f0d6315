import type { CategoryNode } from '$lib/server/banks/tree';
import type { Weave, WeaveCell } from '$lib/server/banks/weave';

/** What the shade of a cell tells: what share of its questions has it. */
export type Shade = 'whole' | 'verified' | 'feedback' | 'clean';

/** A weave with the tree of its bank. */
export type WovenBank = Weave & { tree: CategoryNode[] };

/** A cell of a weave: of which bank, a category or no category, and a column. */
export interface Place {
	bankId: number;
	categoryId: number | null;
	column: string;
}

/** A line of weaves that are laid side by side: the category of that path in each bank; undefined where a bank has none. */
export interface WeaveLine {
	key: string;
	name: string;
	depth: number;
	categories: (number | null | undefined)[];
}

/** What is in a cell; nothing where it is a hole. */
export function cellAt(weave: Weave, { categoryId, column }: Omit<Place, 'bankId'>): WeaveCell | undefined {
	return weave.cells.find((cell) => cell.categoryId === categoryId && cell.column === column);
}

/** The columns of all weaves, those of the first before what only others have. */
export function columnsOf(weaves: readonly Weave[]): Weave['columns'] {
	return [
		...new Map(weaves.flatMap(({ columns }) => columns).map((column) => [column.value, column] as const)).values()
	];
}

/**
 * The lines of weaves: the categories of the first bank in the order of its tree, each followed by those that only another
 * bank has under it, and before all what stands in no category.
 */
export function linesOf(weaves: readonly WovenBank[]): WeaveLine[] {
	const lines: WeaveLine[] = [];
	const known = new Map<string, WeaveLine>();
	const line = (key: string, name: string, depth: number, at: number) => {
		const made: WeaveLine = { key, name, depth, categories: weaves.map(() => undefined) };
		lines.splice(at, 0, made);
		known.set(key, made);
		return made;
	};
	weaves.forEach(({ tree }, which) => {
		let before = lines.length - 1;
		for (const { id, key, name, depth } of tree) {
			const there = known.get(key) ?? line(key, name, depth, before + 1);
			there.categories[which] = id;
			before = lines.indexOf(there);
		}
	});
	if (weaves.some(({ cells }) => cells.some(({ categoryId }) => categoryId === null)))
		lines.unshift({ key: '', name: 'In no category', depth: 0, categories: weaves.map(() => null) });
	return lines;
}

/** What the address of a bank has to say so that it lists the questions behind a cell of the weave. */
export function questionsOfCell({ bankId, categoryId, column }: Place, by: string): Record<string, string | null> {
	return {
		view: null,
		bank: String(bankId),
		across: null,
		beside: null,
		category: categoryId === null ? null : String(categoryId),
		under: '0',
		question: null,
		[by]: by === 'difficulty' && !column ? 'none' : column
	};
}
