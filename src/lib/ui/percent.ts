/** A share as whole percent for people, which stays on one line: "33 %", "−25 %". */
export function percentOf(share: number): string {
	return `${share < 0 ? '−' : ''}${Math.round(Math.abs(share) * 100)}\u00a0%`;
}
