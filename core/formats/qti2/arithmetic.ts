import { lookup } from '../../model/lookup';
import type { XmlElement } from '../../xml/tree';

const gcd = (a: number, b: number): number => (b ? gcd(b, a % b) : Math.abs(a));
const total = (of: number[]) => of.reduce((a, b) => a + b, 0);
const mean = (of: number[]) => total(of) / of.length;
const squares = (of: number[]) => total(of.map((one) => (one - mean(of)) ** 2));

/** What expressions make of the numbers in them (QTI 2.1 information model, section 15.4); null where that is nothing. */
const operations = lookup<(of: number[]) => number | null>({
	sum: total,
	product: (of) => of.reduce((a, b) => a * b, 1),
	subtract: ([a, b]) => a! - b!,
	divide: ([a, b]) => (b ? a! / b : null),
	power: ([a, b]) => a! ** b!,
	integerDivide: ([a, b]) => (b ? Math.floor(a! / b) : null),
	integerModulus: ([a, b]) => (b ? a! - b * Math.floor(a! / b) : null),
	min: (of) => Math.min(...of),
	max: (of) => Math.max(...of),
	gcd: (of) => of.reduce(gcd, 0),
	lcm: (of) => of.reduce((a, b) => (a && b ? Math.abs(a * b) / gcd(a, b) : 0), 1),
	truncate: ([a]) => Math.trunc(a!),
	round: ([a]) => Math.floor(a! + 0.5),
	integerToFloat: ([a]) => a!
});

/** The names of `mathOperator` (15.4.9). */
const functions = lookup<(a: number, b: number) => number>({
	sin: Math.sin,
	cos: Math.cos,
	tan: Math.tan,
	sec: (a) => 1 / Math.cos(a),
	csc: (a) => 1 / Math.sin(a),
	cot: (a) => 1 / Math.tan(a),
	asin: Math.asin,
	acos: Math.acos,
	atan: Math.atan,
	atan2: Math.atan2,
	sinh: Math.sinh,
	cosh: Math.cosh,
	tanh: Math.tanh,
	log: Math.log10,
	ln: Math.log,
	exp: Math.exp,
	abs: Math.abs,
	signum: Math.sign,
	floor: Math.floor,
	ceil: Math.ceil,
	toDegrees: (a) => (a * 180) / Math.PI,
	toRadians: (a) => (a * Math.PI) / 180
});

/** The names of `statsOperator` (15.4.10). */
const statistics = lookup<(of: number[]) => number>({
	mean,
	sampleVariance: (of) => squares(of) / (of.length - 1),
	sampleSD: (of) => Math.sqrt(squares(of) / (of.length - 1)),
	popVariance: (of) => squares(of) / of.length,
	popSD: (of) => Math.sqrt(squares(of) / of.length)
});

/** A number rounded to places behind the point or to significant figures (15.4.8: roundTo). */
export function roundedTo(value: number, figures: number, mode: string | undefined): number {
	return mode === 'decimalPlaces'
		? Number(value.toFixed(Math.max(0, figures)))
		: Number(value.toPrecision(Math.max(1, figures)));
}

/** How an expression works out numbers, or undefined where it is none that does. What it cannot work out is null. */
export function operationOf(node: XmlElement): ((of: number[]) => number | null) | undefined {
	const { name, figures, roundingMode } = node.attributes;
	const finite = (value: number | null) => (value !== null && Number.isFinite(value) ? value : null);
	if (node.name === 'mathOperator') {
		const found = functions[name ?? ''];
		return found && (([a, b]) => finite(found(a!, b!)));
	}
	if (node.name === 'statsOperator') {
		const found = statistics[name ?? ''];
		return found && ((of) => finite(found(of)));
	}
	if (node.name === 'roundTo') return ([a]) => roundedTo(a!, Number(figures ?? 0), roundingMode);
	const found = operations[node.name];
	return found && ((of) => finite(found(of)));
}
