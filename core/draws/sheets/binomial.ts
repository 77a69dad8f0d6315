const rows = new Map<number, bigint[]>();

/** In how many ways `some` of `all` can be chosen; 0 where there are not so many. */
export function choose(all: number, some: number): bigint {
	if (some < 0 || some > all) return 0n;
	const row = rows.get(all) ?? [1n];
	if (row.length === 1) rows.set(all, row);
	for (let at = row.length; at <= some; at += 1) row.push((row[at - 1]! * BigInt(all - at + 1)) / BigInt(at));
	return row[some]!;
}

/** The natural logarithms of the factorials, as far as they were asked for. */
const logs: number[] = [0];

function logFactorial(number: number): number {
	for (let at = logs.length; at <= number; at += 1) logs.push(logs[at - 1]! + Math.log(at));
	return logs[number]!;
}

/** The natural logarithm of the number of ways in which `some` of `all` can be chosen. */
export function logChoose(all: number, some: number): number {
	return some < 0 || some > all ? -Infinity : logFactorial(all) - logFactorial(some) - logFactorial(all - some);
}

/** The chance that of `drawn` out of `all`, of which `marked` are marked, exactly `hits` are marked (hypergeometric). */
export function hypergeometric(all: number, marked: number, drawn: number, hits: number): number {
	if (hits < 0 || hits > marked || drawn - hits < 0 || drawn - hits > all - marked) return 0;
	return Math.exp(logChoose(marked, hits) + logChoose(all - marked, drawn - hits) - logChoose(all, drawn));
}

/** A whole number of any size as a fraction of another, as a number from 0 on. */
export function ratio(part: bigint, whole: bigint): number {
	const size = whole.toString(16).length * 4 - 900;
	if (size <= 0) return Number(part) / Number(whole);
	return Number(part >> BigInt(size)) / Number(whole >> BigInt(size));
}
