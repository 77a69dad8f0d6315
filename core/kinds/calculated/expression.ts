import { lookup } from '../../model/lookup';
import { create, parseDependencies, type MathNode } from 'mathjs/number';

// of the whole library only what parsing needs, so that a build leaves out the rest
const { parse } = create({ parseDependencies: parseDependencies! });

/** An expression that cannot be worked out; the message says why, for people. */
export class ExpressionError extends Error {}

type Value = number | boolean;

const round = (value: number, digits = 0) => {
	const scale = 10 ** digits;
	return Math.floor(value * scale + 0.5) / scale;
};
const gcd = (a: number, b: number): number => (b ? gcd(b, a % b) : Math.abs(a));

/** The functions that an expression may use: those of school mathematics, by the names that mathjs gives them. */
export const functions = lookup<(...values: number[]) => number>({
	abs: Math.abs,
	acos: Math.acos,
	asin: Math.asin,
	atan: Math.atan,
	atan2: Math.atan2,
	ceil: Math.ceil,
	cos: Math.cos,
	cosh: Math.cosh,
	exp: Math.exp,
	fix: Math.trunc,
	floor: Math.floor,
	gcd,
	lcm: (a, b) => (a && b ? Math.abs(a * b) / gcd(a, b) : 0),
	log: (value, base) => (base === undefined ? Math.log(value) : Math.log(value) / Math.log(base)),
	log10: Math.log10,
	max: Math.max,
	min: Math.min,
	mod: (a, b) => a - b * Math.floor(a / b),
	pow: Math.pow,
	round,
	sign: Math.sign,
	sin: Math.sin,
	sinh: Math.sinh,
	sqrt: Math.sqrt,
	tan: Math.tan,
	tanh: Math.tanh
});
const constants = lookup<number>({ pi: Math.PI, e: Math.E });
const operators = lookup<(a: number, b: number) => Value>({
	add: (a, b) => a + b,
	subtract: (a, b) => a - b,
	multiply: (a, b) => a * b,
	divide: (a, b) => a / b,
	pow: Math.pow,
	mod: functions.mod!,
	smaller: (a, b) => a < b,
	smallerEq: (a, b) => a <= b,
	larger: (a, b) => a > b,
	largerEq: (a, b) => a >= b,
	equal: (a, b) => a === b,
	unequal: (a, b) => a !== b
});

/** The parts of a parsed expression, as far as they are known here. */
export type Tree =
	{ form: 'number'; value: number } | { form: 'variable'; name: string } | { form: 'call'; name: string; of: Tree[] };

const deepest = 60;

function treeOf(node: MathNode, depth = 0): Tree {
	const inner = node as unknown as {
		type: string;
		value?: unknown;
		name?: string;
		fn?: string | { name: string };
		args?: MathNode[];
		content?: MathNode;
	};
	if (depth > deepest) throw new ExpressionError('it is nested too deep');
	if (inner.type === 'ParenthesisNode') return treeOf(inner.content!, depth + 1);
	if (inner.type === 'ConstantNode' && typeof inner.value === 'number') return { form: 'number', value: inner.value };
	if (inner.type === 'SymbolNode') return { form: 'variable', name: inner.name! };
	if (inner.type === 'OperatorNode' || inner.type === 'FunctionNode') {
		const name = typeof inner.fn === 'string' ? inner.fn : (inner.fn?.name ?? '');
		const known =
			name in operators || name in functions || ['unaryMinus', 'unaryPlus', 'and', 'or', 'not'].includes(name);
		if (!known) throw new ExpressionError(`“${name}” is not a function that is known here`);
		return { form: 'call', name, of: inner.args!.map((one) => treeOf(one, depth + 1)) };
	}
	throw new ExpressionError(`“${String(node)}” is not an ordinary calculation`);
}

/** An expression in the notation of mathjs as a tree. Throws an ExpressionError where it is none. */
export function parseExpression(text: string): Tree {
	let node: MathNode;
	try {
		node = parse(text);
	} catch (error) {
		throw new ExpressionError((error as Error).message);
	}
	return treeOf(node);
}

/** What a tree comes to with the values of its variables. Throws an ExpressionError. */
export function evaluate(tree: Tree, values: Map<string, number>): Value {
	if (tree.form === 'number') return tree.value;
	if (tree.form === 'variable') {
		const value = values.get(tree.name) ?? constants[tree.name];
		if (value === undefined) throw new ExpressionError(`“${tree.name}” has no value`);
		return value;
	}
	const of = tree.of.map((one) => evaluate(one, values));
	if (tree.name === 'and') return of.every(Boolean);
	if (tree.name === 'or') return of.some(Boolean);
	if (tree.name === 'not') return !of[0];
	const numbers = of.map(Number);
	if (tree.name === 'unaryMinus') return -numbers[0]!;
	if (tree.name === 'unaryPlus') return numbers[0]!;
	const operator = operators[tree.name];
	if (operator && numbers.length === 2) return operator(numbers[0]!, numbers[1]!);
	const call = functions[tree.name];
	if (!call || !numbers.length) throw new ExpressionError(`“${tree.name}” cannot be worked out`);
	return call(...numbers);
}

/** The names of the variables in a tree, without the constants. */
export function variablesOf(tree: Tree): string[] {
	if (tree.form === 'number') return [];
	if (tree.form === 'variable') return tree.name in constants ? [] : [tree.name];
	return [...new Set(tree.of.flatMap(variablesOf))];
}

const infix = lookup<[string, number]>({
	or: ['or', 1],
	and: ['and', 2],
	equal: ['==', 3],
	unequal: ['!=', 3],
	smaller: ['<', 3],
	smallerEq: ['<=', 3],
	larger: ['>', 3],
	largerEq: ['>=', 3],
	add: ['+', 4],
	subtract: ['-', 4],
	multiply: ['*', 5],
	divide: ['/', 5]
});

/** A tree in the one notation in which expressions are kept. */
export function writeExpression(tree: Tree, above = 0): string {
	if (tree.form === 'number') return tree.value < 0 ? `(${tree.value})` : String(tree.value);
	if (tree.form === 'variable') return tree.name;
	const known = infix[tree.name];
	if (known && tree.of.length === 2) {
		const [sign, level] = known;
		const text = `${writeExpression(tree.of[0]!, level)} ${sign} ${writeExpression(tree.of[1]!, level + 1)}`;
		return level < above ? `(${text})` : text;
	}
	if (tree.name === 'unaryMinus') return `(-${writeExpression(tree.of[0]!, 6)})`;
	if (tree.name === 'unaryPlus') return writeExpression(tree.of[0]!, above);
	return `${tree.name}(${tree.of.map((one) => writeExpression(one)).join(', ')})`;
}
