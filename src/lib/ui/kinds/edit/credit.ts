/** A share of the points in percent, as a field shows it. */
export const percent = (credit: number) => Math.round(credit * 100_000) / 1000;

/** An identifier that is not used yet. */
export function fresh(used: string[]): string {
	let number = used.length + 1;
	while (used.includes(`N${number}`)) number += 1;
	return `N${number}`;
}
