/**
 * A whole number of things dealt out in proportion to sizes, none over its size: each gets the floor of its share, and what
 * is left goes to the greatest remainders (Hamilton's method), the first of equals first. There have to be as many in all.
 */
export function shares(sizes: readonly number[], number: number): number[] {
	const all = sizes.reduce((sum, size) => sum + size, 0);
	const exact = sizes.map((size) => (all ? (size * number) / all : 0));
	const dealt = exact.map(Math.floor);
	const byRemainder = [...sizes.keys()].sort((a, b) => exact[b]! - dealt[b]! - (exact[a]! - dealt[a]!) || a - b);
	let left = number - dealt.reduce((sum, own) => sum + own, 0);
	for (const at of byRemainder)
		if (left > 0 && dealt[at]! < sizes[at]!) {
			dealt[at]! += 1;
			left -= 1;
		}
	return dealt;
}
