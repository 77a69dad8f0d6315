/** One part of a quiz as drawing needs it. Questions are named by number. */
export interface DrawPart {
	pool: readonly number[];
	/** How many are drawn; null for all. */
	draw: number | null;
	shuffle: boolean;
}
