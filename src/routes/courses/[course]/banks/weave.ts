import type { Weave } from '$lib/server/banks/weave';

/** What the shade of a cell tells: what share of its questions has it. */
export type Shade = 'whole' | 'verified' | 'feedback' | 'clean';

/** A cell of a weave: a category, or no category, and a column. */
export interface Place {
	categoryId: number | null;
	column: string;
}

/** What is in a cell; nothing where it is a hole. */
export function cellAt(weave: Weave, { categoryId, column }: Place) {
	return weave.cells.find((cell) => cell.categoryId === categoryId && cell.column === column);
}
