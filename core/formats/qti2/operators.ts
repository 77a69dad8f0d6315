import { fitsPattern } from '../../kinds/answers';
import { inShape } from '../../kinds/areas';
import { parseNumber } from '../../numbers/numbers';
import type { XmlElement } from '../../xml/tree';
import { shapeOf } from '../shapes';
import { operationOf, roundedTo } from './arithmetic';
import { equalValue, isTrue, numberOf, patternMark, pointOf, UnknownRule, type Value } from './values';

/** An operator with what it works on; values are worked out only where they are asked for. */
interface Call {
	node: XmlElement;
	operands: XmlElement[];
	/** What an operand comes to. */
	value: (operand: XmlElement) => Value;
	values: () => Value[];
	/** Whether an operand is a response whose order counts. */
	isOrdered: () => boolean;
}

type Operator = (call: Call) => Value;

/** All operands as numbers; null where something is none. */
function numbersOf({ operands, value }: Call): number[] | null {
	const found: number[] = [];
	for (const operand of operands)
		for (const single of value(operand) ?? [null]) {
			const number = typeof single === 'number' ? single : typeof single === 'string' ? parseNumber(single) : null;
			if (number === null) return null;
			found.push(number);
		}
	return found;
}

const comparing =
	(holds: (a: number, b: number) => boolean): Operator =>
	(call) => {
		const found = numbersOf(call);
		return found?.length === 2 ? [holds(found[0]!, found[1]!)] : null;
	};

/** Both operands as numbers; null where one is none. */
function bothNumbers({ values }: Call): [number, number] | null {
	const [a, b] = values().map(numberOf);
	return a === null || b === null || a === undefined || b === undefined ? null : [a, b];
}

/** Whether two values are the same (2.1, 15.3: match): in their order where that counts, else as sets. */
export function matches(a: Value, b: Value, isOrdered: boolean): Value {
	if (a === null || b === null) return null;
	if (a.length !== b.length) return [false];
	if (isOrdered) return [a.every((value, at) => equalValue(value, b[at]!))];
	const within = (some: typeof a, all: typeof a) =>
		some.every((value) => all.some((other) => equalValue(value, other)));
	return [within(a, b) && within(b, a)];
}

/** How far below and above a target a number may lie by an `equal` (2.1, 15.3: relative tolerances are in percent). */
export function toleranceOf(node: XmlElement, target: number): { below: number; above: number } {
	const [first = 0, second = first] = (node.attributes.tolerance ?? '')
		.trim()
		.split(/\s+/)
		.map((text) => parseNumber(text) ?? 0);
	const scale = node.attributes.toleranceMode === 'relative' ? Math.abs(target) / 100 : 1;
	return { below: first * scale, above: second * scale };
}

const equal: Operator = (call) => {
	const { node, operands } = call;
	const both = bothNumbers(call);
	if (!both) return null;
	const correctFirst = operands[0]?.name === 'correct' || operands[0]?.name === 'baseValue';
	const [value, target] = correctFirst ? [both[1], both[0]] : both;
	if ((node.attributes.toleranceMode ?? 'exact') === 'exact') return [value === target];
	const { below, above } = toleranceOf(node, target);
	const [least, most] = [target - below, target + above];
	const slack = 1e-9 * Math.max(1, Math.abs(target));
	return [
		(node.attributes.includeLowerBound === 'false' ? value > least + slack : value >= least - slack) &&
			(node.attributes.includeUpperBound === 'false' ? value < most - slack : value <= most + slack)
	];
};

const equalRounded: Operator = (call) => {
	const both = bothNumbers(call);
	if (!both) return null;
	const { attributes } = call.node;
	const figures = Number(attributes.figures ?? 0);
	// files that leave the mode out mean places behind the point, whatever the standard's default is
	const mode = attributes.roundingMode === 'significantFigures' ? 'significantFigures' : 'decimalPlaces';
	return [roundedTo(both[0], figures, mode) === roundedTo(both[1], figures, mode)];
};

const patternMatch: Operator = ({ node, values }) => {
	const [value] = values();
	if (!value) return null;
	const [text, pattern] = [String(value[0]), node.attributes.pattern ?? ''];
	return [text.startsWith(patternMark) ? text.slice(1) === pattern : fitsPattern(pattern, text)];
};

const inside: Operator = ({ node, values }) => {
	const [points] = values();
	const shape = shapeOf(node, '');
	return points ? [points.some((point) => inShape(shape, pointOf(String(point))))] : null;
};

/** Two texts as an operator compares them: in lower case where case does not count. */
function bothTexts({ node, values }: Call): [string, string] | null {
	const [a, b] = values();
	if (!a || !b) return null;
	const [x, y] = [String(a[0]), String(b[0])];
	return node.attributes.caseSensitive === 'false' ? [x.toLowerCase(), y.toLowerCase()] : [x, y];
}

const stringMatch: Operator = (call) => {
	const both = bothTexts(call);
	if (!both) return null;
	const [x, y] = both;
	return [call.node.attributes.substring === 'true' ? x.includes(y) : x === y];
};

const container: Operator = ({ values }) => {
	const all = values().flatMap((value) => value ?? []);
	return all.length ? all : null;
};

/** The operators of expressions that do not reckon, by name (2.1 information model, 15). */
const operators = new Map<string, Operator>([
	['inside', inside],
	['patternMatch', patternMatch],
	['equal', equal],
	['equalRounded', equalRounded],
	['stringMatch', stringMatch],
	[
		'substring',
		(call) => {
			const both = bothTexts(call);
			return both && [both[1].includes(both[0])];
		}
	],
	[
		'anyN',
		({ node, values }) => {
			const count = values().filter(isTrue).length;
			return [count >= Number(node.attributes.min ?? 0) && count <= Number(node.attributes.max ?? Infinity)];
		}
	],
	[
		'delete',
		({ values }) => {
			const [taken, from] = values();
			return from ? from.filter((value) => !taken || !equalValue(value, taken[0]!)) : null;
		}
	],
	[
		'index',
		({ node, values }) => {
			const value = values()[0]?.[Number(node.attributes.n ?? 1) - 1];
			return value === undefined ? null : [value];
		}
	],
	[
		'isNull',
		({ values }) => {
			const [value] = values();
			return [!value?.length || (value.length === 1 && value[0] === '')];
		}
	],
	[
		'match',
		({ values, isOrdered }) => {
			const [a = null, b = null] = values();
			return matches(a, b, isOrdered());
		}
	],
	['and', ({ values }) => [values().every(isTrue)]],
	['or', ({ values }) => [values().some(isTrue)]],
	[
		'not',
		({ values }) => {
			const [value] = values();
			return value ? [!isTrue(value)] : null;
		}
	],
	['multiple', container],
	['ordered', container],
	[
		'member',
		({ values }) => {
			const [member, of] = values();
			return member && of ? [of.some((value) => equalValue(value, member[0]!))] : null;
		}
	],
	[
		'contains',
		({ values }) => {
			const [of, part] = values();
			return of && part ? [part.every((member) => of.some((value) => equalValue(value, member)))] : null;
		}
	],
	['containerSize', ({ values }) => [values()[0]?.length ?? 0]],
	['lt', comparing((a, b) => a < b)],
	['lte', comparing((a, b) => a <= b)],
	['gt', comparing((a, b) => a > b)],
	['gte', comparing((a, b) => a >= b)],
	['mathConstant', ({ node }) => [node.attributes.name === 'e' ? Math.E : Math.PI]]
]);

/** What an operator comes to (2.1 information model, 15). Throws an UnknownRule. */
export function operate(call: Call): Value {
	const { node } = call;
	const operator = operators.get(node.name);
	if (operator) return operator(call);
	const operation = operationOf(node);
	if (!operation) throw new UnknownRule(`the expression “${node.attributes.name ?? node.name}”`);
	const found = numbersOf(call);
	const result = found?.length ? operation(found) : null;
	return result === null ? null : [result];
}
