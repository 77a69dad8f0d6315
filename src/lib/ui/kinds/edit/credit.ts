/** A share of the points in percent, as a field shows it. */
export const percent = (credit: number) => Math.round(credit * 100_000) / 1000;

/** A share of the points out of a field in percent, from -1 to 1. */
export const share = (text: string) => Math.max(-1, Math.min(1, (Number(text) || 0) / 100));

/** A number out of a field; null where it is empty. */
export const numberOf = (text: string) => (text.trim() === '' ? null : Number(text.replace(',', '.')));

/** An identifier that is not used yet. */
export function fresh(used: string[]): string {
	let number = used.length + 1;
	while (used.includes(`N${number}`)) number += 1;
	return `N${number}`;
}
