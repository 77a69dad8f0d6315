import type { CategoryNode } from '$lib/server/banks/tree';
import type { Across, Weave, WeaveCell } from '$lib/server/banks/weave';

/** What the shade of a cell can tell, and how that is said: what share of its questions has it. */
export const shades = [
	['whole', 'whole: clean, verified, with feedback'],
	['verified', 'key verified'],
	['feedback', 'has feedback'],
	['clean', 'no snag that breaks or makes doubtful']
] as const;
export type Shade = (typeof shades)[number][0];

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

/** How many questions a category of a weave has itself, without those under it. */
export function ownOf({ tree }: WovenBank, categoryId: number | null | undefined): number {
	return tree.find(({ id }) => id === categoryId)?.own ?? 0;
}

/** How dark a cell is, from 0 to 1: what share of its questions has what is asked, or how much of its category lacks it. */
export function shareOf(cell: WeaveCell, weave: WovenBank, by: Across, shade: Shade): number {
	const [part, all] = by === 'lack' ? [cell.questions, ownOf(weave, cell.categoryId)] : [cell[shade], cell.questions];
	return all ? part / all : 0;
}

/** How many questions stand in a category of a weave, and how many of them have what the shade asks. */
export function sumsOf(
	{ cells }: Weave,
	categoryId: number | null | undefined,
	shade: Shade
): { questions: number; part: number } {
	const sums = { questions: 0, part: 0 };
	for (const cell of cells.filter((other) => other.categoryId === categoryId)) {
		sums.questions += cell.questions;
		sums.part += cell[shade];
	}
	return sums;
}

/** How many questions of all categories stand in a column of a weave. */
export function inColumn({ cells }: Weave, column: string): number {
	return cells.filter((cell) => cell.column === column).reduce((sum, { questions }) => sum + questions, 0);
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
