import { lookup } from '../../../model/lookup';
import { ExpressionError, parseExpression, type Tree } from '../../../kinds/calculated/expression';
import type { CalculatedQuestion, Variable } from '../../../kinds';
import { tidy } from '../../../numbers/numbers';
import { declare, number, setScore, type Parts, type Writing } from './parts';

const elements = lookup<string>({
	add: 'sum',
	subtract: 'subtract',
	multiply: 'product',
	divide: 'divide',
	pow: 'power',
	fix: 'truncate',
	min: 'min',
	max: 'max',
	gcd: 'gcd',
	lcm: 'lcm',
	smaller: 'lt',
	smallerEq: 'lte',
	larger: 'gt',
	largerEq: 'gte',
	and: 'and',
	or: 'or',
	not: 'not'
});
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
	log10: 'log',
	exp: 'exp',
	abs: 'abs',
	sign: 'signum',
	floor: 'floor',
	ceil: 'ceil'
});

/** A calculation as expressions of the standard (2.1, section 15). Throws an ExpressionError for what it has no name for. */
export function expressionXml(tree: Tree, constants: Set<string>): string {
	if (tree.form === 'number') return `<baseValue baseType="float">${tree.value}</baseValue>`;
	if (tree.form === 'variable')
		return !constants.has(tree.name) && (tree.name === 'pi' || tree.name === 'e')
			? `<mathConstant name="${tree.name}"/>`
			: `<variable identifier="${tree.name}"/>`;
	const of = tree.of.map((one) => expressionXml(one, constants));
	const inner = of.join('');
	if (tree.name === 'unaryMinus') return `<product><baseValue baseType="float">-1</baseValue>${inner}</product>`;
	if (tree.name === 'unaryPlus') return inner;
	if (tree.name === 'sqrt') return `<power>${inner}<baseValue baseType="float">0.5</baseValue></power>`;
	if (tree.name === 'mod')
		return `<subtract>${of[0]}<product>${of[1]}<mathOperator name="floor"><divide>${inner}</divide></mathOperator></product></subtract>`;
	if (tree.name === 'log') {
		const ln = (text: string) => `<mathOperator name="ln">${text}</mathOperator>`;
		return of.length > 1 ? `<divide>${ln(of[0]!)}${ln(of[1]!)}</divide>` : ln(inner);
	}
	if (tree.name === 'round') {
		const digits = tree.of[1];
		if (!digits) return `<roundTo roundingMode="decimalPlaces" figures="0">${inner}</roundTo>`;
		if (digits.form !== 'number')
			throw new ExpressionError('it rounds to a number of places that is itself worked out');
		return `<roundTo roundingMode="decimalPlaces" figures="${digits.value}">${of[0]}</roundTo>`;
	}
	if (tree.name === 'equal') return `<equal toleranceMode="exact">${inner}</equal>`;
	if (tree.name === 'unequal') return `<not><equal toleranceMode="exact">${inner}</equal></not>`;
	if (operators[tree.name]) return `<mathOperator name="${operators[tree.name]}">${inner}</mathOperator>`;
	const element = elements[tree.name];
	if (!element) throw new ExpressionError(`“${tree.name}” has no name in the standard`);
	return `<${element}>${inner}</${element}>`;
}

function valueXml({ values, whole }: Variable, names: Set<string>): string {
	if (values.form === 'range')
		return whole
			? `<randomInteger min="${values.min}" max="${values.max}"${(values.step ?? 1) === 1 ? '' : ` step="${values.step}"`}/>`
			: `<randomFloat min="${values.min}" max="${values.max}"/>`;
	if (values.form === 'set') {
		const type = whole ? 'integer' : 'float';
		return `<random><multiple>${values.values.map((value) => `<baseValue baseType="${type}">${value}</baseValue>`).join('')}</multiple></random>`;
	}
	return expressionXml(parseExpression(values.expression), names);
}

/** The parts of an item that is worked out anew for each student (2.1, section 12). Throws an ExpressionError. */
export function calculatedParts(question: CalculatedQuestion, scale: Writing['scale']): Parts {
	const names = new Set(question.variables.map((one) => one.name));
	const type = (whole: boolean) => (whole ? 'integer' : 'float');
	const declarations = question.variables
		.map((one) => `<templateDeclaration identifier="${one.name}" cardinality="single" baseType="${type(one.whole)}"/>`)
		.join('');
	const rules = [
		...question.variables.map(
			(one) => `<setTemplateValue identifier="${one.name}">${valueXml(one, names)}</setTemplateValue>`
		),
		...question.constraints.map(
			(one) => `<templateConstraint>${expressionXml(parseExpression(one), names)}</templateConstraint>`
		),
		`<setCorrectResponse identifier="RESPONSE">${expressionXml(parseExpression(question.expression), names)}</setCorrectResponse>`
	];
	const { mode, value } = question.tolerance;
	const tolerance = number(tidy(mode === 'relative' ? value * 100 : value));
	const equal = value
		? `<equal toleranceMode="${mode}" tolerance="${tolerance} ${tolerance}">`
		: '<equal toleranceMode="exact">';
	return {
		declaration: declare('single', type(question.whole), ''),
		interaction: '<p><textEntryInteraction responseIdentifier="RESPONSE"/></p>',
		rules: `<responseCondition><responseIf>${equal}<variable identifier="RESPONSE"/><correct identifier="RESPONSE"/></equal>${setScore(scale)}</responseIf></responseCondition>`,
		templates: { declarations, processing: `<templateProcessing>${rules.join('')}</templateProcessing>` }
	};
}
