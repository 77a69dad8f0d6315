import { lookup } from '../../model/lookup';
import { withCommon } from '../../model/question';
import type { CalculatedQuestion, Variable } from '../../kinds';
import { writeExpression, type Tree } from '../../kinds/calculated/expression';
import { childOf, childrenOf, descendants, trimmed, type XmlElement } from '../../xml/tree';
import { parseNumber } from '../../numbers/numbers';
import { feedbackByAnswers } from './marking';
import { Processing, type ResponseDeclaration } from './process';
import { UnknownRule } from './values';
import { promptNodes, stemOf, type Reading } from './reading';

const calls = lookup<string>({
	subtract: 'subtract',
	divide: 'divide',
	power: 'pow',
	integerModulus: 'mod',
	truncate: 'fix',
	round: 'round',
	min: 'min',
	max: 'max',
	gcd: 'gcd',
	lcm: 'lcm',
	lt: 'smaller',
	lte: 'smallerEq',
	gt: 'larger',
	gte: 'largerEq',
	match: 'equal',
	equal: 'equal',
	not: 'not'
});
const chains = lookup<string>({ sum: 'add', product: 'multiply', and: 'and', or: 'or' });
const operators = lookup<string>({
	sin: 'sin',
	cos: 'cos',
	tan: 'tan',
	asin: 'asin',
	acos: 'acos',
	atan: 'atan',
	atan2: 'atan2',
	sinh: 'sinh',
	cosh: 'cosh',
	tanh: 'tanh',
	log: 'log10',
	ln: 'log',
	exp: 'exp',
	abs: 'abs',
	signum: 'sign',
	floor: 'floor',
	ceil: 'ceil'
});
const call = (name: string, ...of: Tree[]): Tree => ({ form: 'call', name, of });
const number = (value: number): Tree => ({ form: 'number', value });

const pi: Tree = { form: 'variable', name: 'pi' };
/** Functions of the standard that are made of others here. */
const composed = lookup<(of: Tree) => Tree>({
	toRadians: (of) => call('divide', call('multiply', of, pi), number(180)),
	toDegrees: (of) => call('divide', call('multiply', of, number(180)), pi),
	sec: (of) => call('divide', number(1), call('cos', of)),
	csc: (of) => call('divide', number(1), call('sin', of)),
	cot: (of) => call('divide', number(1), call('tan', of))
});

/** An expression of the standard (2.1, section 15) as one of ours. Throws an UnknownRule. */
export function treeOf(node: XmlElement | undefined): Tree {
	if (!node) throw new UnknownRule('an expression with nothing in it');
	const of = () => childrenOf(node).map(treeOf);
	if (node.name === 'baseValue') {
		const value = parseNumber(trimmed(node));
		if (value === null) throw new UnknownRule(`the value “${trimmed(node)}” in a calculation`);
		return number(value);
	}
	if (node.name === 'variable') return { form: 'variable', name: node.attributes.identifier ?? '' };
	if (node.name === 'integerToFloat') return treeOf(childrenOf(node)[0]);
	if (node.name === 'integerDivide') return call('floor', call('divide', ...of()));
	if (node.name === 'roundTo') {
		if (node.attributes.roundingMode !== 'decimalPlaces') throw new UnknownRule('rounding to significant figures');
		return call('round', ...of(), number(Number(node.attributes.figures ?? 0)));
	}
	if (node.name === 'mathConstant') return { form: 'variable', name: node.attributes.name === 'e' ? 'e' : 'pi' };
	if (node.name === 'mathOperator') {
		const made = composed[node.attributes.name ?? ''];
		if (made) return made(of()[0]!);
		const name = operators[node.attributes.name ?? ''];
		if (!name) throw new UnknownRule(`the function “${node.attributes.name}”`);
		return call(name, ...of());
	}
	if (node.name === 'product' || node.name === 'power') {
		const [first, second, ...more] = of();
		const is = (tree: Tree | undefined, value: number) => tree?.form === 'number' && tree.value === value;
		if (node.name === 'product' && second && !more.length && is(first, -1)) return call('unaryMinus', second);
		if (node.name === 'power' && first && is(second, 0.5)) return call('sqrt', first);
	}
	const chain = chains[node.name];
	if (chain) return of().reduce((a, b) => call(chain, a, b));
	const name = calls[node.name];
	if (!name) throw new UnknownRule(`the expression “${node.name}” in a calculation`);
	return call(name, ...of());
}

function valuesOf(node: XmlElement | undefined, name: string, whole: boolean): Variable['values'] {
	const attribute = (key: string) => {
		const value = parseNumber(node!.attributes[key] ?? '');
		if (value === null) throw new UnknownRule(`a limit of “${name}” that is itself worked out`);
		return value;
	};
	if (node?.name === 'randomInteger')
		return {
			form: 'range',
			min: attribute('min'),
			max: attribute('max'),
			step: node.attributes.step === undefined ? 1 : attribute('step')
		};
	if (node?.name === 'randomFloat') return { form: 'range', min: attribute('min'), max: attribute('max'), step: null };
	if (node?.name === 'random') {
		const values = descendants(node, 'baseValue').map((one) => parseNumber(trimmed(one)));
		if (values.includes(null) || !values.length) throw new UnknownRule(`values of “${name}” that are no numbers`);
		return { form: 'set', values: values as number[] };
	}
	if (node?.name === 'baseValue' && !whole && parseNumber(trimmed(node)) !== null)
		return { form: 'set', values: [parseNumber(trimmed(node))!] };
	return { form: 'expression', expression: writeExpression(treeOf(node)) };
}

/** Reads an item template with one number as its answer (2.1, section 12). Throws an UnknownRule. */
export function readCalculated(
	reading: Reading,
	interactions: XmlElement[],
	declaration: ResponseDeclaration
): CalculatedQuestion {
	const { common, item, rules, cleaning } = reading;
	const [interaction] = interactions;
	const numeric = ['integer', 'float'].includes(declaration.baseType);
	if (interactions.length !== 1 || !numeric || !/^(textEntry|slider|extendedText)Interaction$/.test(interaction!.name))
		throw new UnknownRule('It is worked out anew for each student, and its answer is not a single number.');
	const declared = new Map(
		childrenOf(item, 'templateDeclaration').map((node) => [node.attributes.identifier ?? '', node])
	);
	const shown = new Map(
		descendants(item, 'printedVariable').map((node) => [node.attributes.identifier ?? '', node.attributes.format ?? ''])
	);
	const variables: Variable[] = [];
	const constraints: string[] = [];
	let expression: string | null = null;
	for (const rule of childrenOf(childOf(item, 'templateProcessing') ?? { ...item, children: [] })) {
		const name = rule.attributes.identifier ?? '';
		if (rule.name === 'setTemplateValue') {
			const whole = declared.get(name)?.attributes.baseType === 'integer';
			const format = /^%(?:\.(\d+)f|[di])$/.exec(shown.get(name) ?? '');
			variables.push({
				name,
				whole,
				decimals: format ? Number(format[1] ?? 0) : null,
				values: valuesOf(childrenOf(rule)[0], name, whole)
			});
		} else if (rule.name === 'templateConstraint') constraints.push(writeExpression(treeOf(childrenOf(rule)[0])));
		else if (rule.name === 'setCorrectResponse') expression = writeExpression(treeOf(childrenOf(rule)[0]));
		else throw new UnknownRule(`the rule “${rule.name}”`);
	}
	for (const [name, node] of declared)
		if (!variables.some((one) => one.name === name)) {
			const value = parseNumber(trimmed(childOf(childOf(node, 'defaultValue') ?? node, 'value')));
			if (value !== null)
				variables.unshift({
					name,
					whole: node.attributes.baseType === 'integer',
					decimals: null,
					values: { form: 'set', values: [value] }
				});
		}
	if (variables.some((one) => !/^[A-Za-z_]\w*$/.test(one.name)))
		throw new UnknownRule('a variable whose name cannot be used in a calculation');
	if (expression === null) throw new UnknownRule('It is worked out anew for each student, and no right answer is set.');
	const equal = rules && descendants(rules, 'equal')[0];
	const relative = equal?.attributes.toleranceMode === 'relative';
	const given = equal && equal.attributes.toleranceMode !== 'exact' ? equal.attributes.tolerance : undefined;
	const value = Number((given ?? '0').trim().split(/\s+/)[0]);
	const points = rules && descendants(rules, 'setOutcomeValue').find((node) => node.attributes.identifier === 'SCORE');
	common.points ??= points ? parseNumber(trimmed(points)) : null;
	common.stem = stemOf(reading, (node) => promptNodes(node, cleaning));
	feedbackOf(reading, declaration);
	return withCommon(common, {
		kind: 'calculated',
		variables,
		constraints,
		expression,
		tolerance: relative ? { mode: 'relative', value: value / 100 } : { mode: 'absolute', value: value || 0 },
		whole: declaration.baseType === 'integer',
		...(reading.unit ? { unit: reading.unit } : {})
	});
}

/** Places the feedback by an answer that is right and one that is not, with 1 in the place of the right one. */
function feedbackOf(reading: Reading, declaration: ResponseDeclaration): void {
	const declarations = reading.declarations.map((one) =>
		one.identifier === declaration.identifier ? { ...one, correct: ['1'] } : one
	);
	const run = (answer: string) => {
		const processing = new Processing(reading.item, declarations, new Map([[declaration.identifier, [answer]]]));
		if (reading.rules) processing.run(reading.rules);
		return processing.outcomes;
	};
	feedbackByAnswers(reading, [
		{ outcomes: run('1'), credit: 1 },
		{ outcomes: run('1000'), credit: 0 }
	]);
}
