import { childOf, childrenOf, trimmed, type XmlElement } from '../../xml/tree';
import { inShape } from '../../kinds/areas';
import { fitsPattern } from '../../kinds/answers';
import type { Shape } from '../../model/pieces';
import { parseNumber } from '../../numbers/numbers';
import { shapeOf } from '../shapes';
import { operationOf, roundedTo } from './arithmetic';

/** A value of a variable: nothing, one value or several. Numbers are kept as numbers. */
export type Value = null | (string | number | boolean)[];

/** A rule or an expression that this program cannot follow; the message names it. */
export class UnknownRule extends Error {}

/** A marking template whose rules stand somewhere else; the declared key still says what is right. */
export class UnknownTemplate extends UnknownRule {}

/** A response declaration, as far as marking needs it (QTI 2.1 information model, section 4). */
export interface ResponseDeclaration {
	identifier: string;
	cardinality: string;
	baseType: string;
	correct: string[];
	/** What the areas of a picture are worth (2.1, 4.3: areaMapping). */
	areas: { shapes: (Shape & { value: number })[]; lower: number | null; upper: number | null; fallback: number } | null;
	mapping: {
		lower: number | null;
		upper: number | null;
		fallback: number;
		entries: { key: string; value: number; caseSensitive: boolean }[];
	} | null;
}

/** A value as it is compared: white space folded, and the two of a pair without a direction in one order. */
export function settledValue(text: string, baseType: string): string {
	const plain = text.trim();
	if (baseType === 'directedPair' || baseType === 'point') return plain.replace(/\s+/g, ' ');
	return baseType === 'pair' ? plain.split(/\s+/).sort().join(' ') : plain;
}

/** Reads a responseDeclaration. */
export function responseDeclaration(node: XmlElement): ResponseDeclaration {
	const mapping = childOf(node, 'mapping');
	const areas = childOf(node, 'areaMapping');
	const baseType = node.attributes.baseType ?? 'identifier';
	const bounds = (one: XmlElement) => ({
		lower: parseNumber(one.attributes.lowerBound ?? ''),
		upper: parseNumber(one.attributes.upperBound ?? ''),
		fallback: parseNumber(one.attributes.defaultValue ?? '0') ?? 0
	});
	return {
		identifier: node.attributes.identifier ?? '',
		cardinality: node.attributes.cardinality ?? 'single',
		baseType,
		correct: childrenOf(childOf(node, 'correctResponse') ?? { ...node, children: [] }, 'value').map((value) =>
			settledValue(trimmed(value), baseType)
		),
		areas: areas
			? {
					...bounds(areas),
					shapes: childrenOf(areas, 'areaMapEntry').map((entry, at) => ({
						...shapeOf(entry, `A${at + 1}`),
						value: parseNumber(entry.attributes.mappedValue ?? '0') ?? 0
					}))
				}
			: null,
		mapping: mapping
			? {
					...bounds(mapping),
					entries: childrenOf(mapping, 'mapEntry').map((entry) => ({
						key: settledValue(entry.attributes.mapKey ?? '', baseType),
						value: parseNumber(entry.attributes.mappedValue ?? '0') ?? 0,
						caseSensitive:
							entry.attributes.caseSensitive === undefined ? true : entry.attributes.caseSensitive === 'true'
					}))
				}
			: null
	};
}

const numberOf = (value: Value): number | null => {
	if (!value || value.length !== 1) return null;
	const [one] = value;
	return typeof one === 'number' ? one : typeof one === 'string' ? parseNumber(one) : null;
};
const isTrue = (value: Value) => value?.[0] === true;
const equalValue = (a: string | number | boolean, b: string | number | boolean) => {
	if (typeof a === 'number' || typeof b === 'number') {
		const [x, y] = [
			typeof a === 'number' ? a : parseNumber(String(a)),
			typeof b === 'number' ? b : parseNumber(String(b))
		];
		return x !== null && x === y;
	}
	return a === b;
};

/** In front of a pattern that is tried as an answer: the answer that fits just this pattern. */
export const patternMark = '\u0002';
/** A point as a response has it: how far across and how far down, in pixels. */
export const pointOf = (text: string) => text.split(/\s+/).map(Number) as [number, number];

const known = new WeakMap<XmlElement, ReadonlyMap<string, Value>>();

/** What the outcomes of an item are before any rule has run (2.1, 4.4); it is asked for with each answer that is tried. */
function defaultsOf(item: XmlElement): ReadonlyMap<string, Value> {
	let defaults = known.get(item);
	if (defaults) return defaults;
	defaults = new Map(
		childrenOf(item, 'outcomeDeclaration').map((node): [string, Value] => {
			const values = childrenOf(childOf(node, 'defaultValue') ?? { ...node, children: [] }, 'value').map(trimmed);
			const numeric = ['float', 'integer'].includes(node.attributes.baseType ?? '');
			return [
				node.attributes.identifier ?? '',
				values.length
					? values.map((value) => (numeric ? (parseNumber(value) ?? 0) : value))
					: numeric && node.attributes.cardinality === 'single'
						? [0]
						: null
			];
		})
	);
	known.set(item, defaults);
	return defaults;
}

/** One run of an item's response processing on one answer (QTI 2.1 information model, sections 5 and 15). */
export class Processing {
	readonly outcomes: Map<string, Value>;
	readonly #item: XmlElement;
	readonly #responses: Map<string, Value>;
	readonly #declarations: Map<string, ResponseDeclaration>;
	readonly #defaults: ReadonlyMap<string, Value>;
	#stopped = false;

	constructor(item: XmlElement, declarations: ResponseDeclaration[], responses: Map<string, Value>) {
		this.#item = item;
		this.#responses = responses;
		this.#declarations = new Map(declarations.map((declaration) => [declaration.identifier, declaration]));
		this.#defaults = defaultsOf(item);
		this.outcomes = new Map(this.#defaults);
	}

	/** The score that has come out. */
	get score(): number {
		return numberOf(this.outcomes.get('SCORE') ?? null) ?? 0;
	}

	/** Runs the rules of an item. Throws an UnknownRule. */
	run(rules: XmlElement): void {
		const template = (rules.attributes.template ?? rules.attributes.templateLocation ?? '')
			.replace(/\.xml$/, '')
			.split('/')
			.pop();
		if (childrenOf(rules).length === 0 && template) this.#template(template);
		else for (const rule of childrenOf(rules)) this.#rule(rule);
	}

	#template(name: string): void {
		const response = this.#declarations.get('RESPONSE') ?? [...this.#declarations.values()][0];
		if (!response) return;
		if (name === 'match_correct')
			this.outcomes.set('SCORE', [
				isTrue(
					this.#match(this.#responses.get(response.identifier) ?? null, this.#correct(response), response.cardinality)
				)
					? 1
					: 0
			]);
		else if (name === 'map_response') this.outcomes.set('SCORE', [this.#map(response)]);
		else throw new UnknownTemplate(`the marking template “${name}”`);
	}

	#correct(declaration: ResponseDeclaration | undefined): Value {
		return declaration?.correct.length ? declaration.correct : null;
	}

	#mapPoints(declaration: ResponseDeclaration): number {
		const { areas } = declaration;
		if (!areas) return 0;
		let sum = 0;
		const hit = new Set<Shape>();
		for (const value of this.#responses.get(declaration.identifier) ?? []) {
			const shape = areas.shapes.find((one) => inShape(one, pointOf(String(value))));
			if (!shape) sum += areas.fallback;
			else if (!hit.has(shape)) {
				hit.add(shape);
				sum += shape.value;
			}
		}
		return Math.min(areas.upper ?? Infinity, Math.max(areas.lower ?? -Infinity, sum));
	}

	#map(declaration: ResponseDeclaration): number {
		const { mapping } = declaration;
		if (!mapping) return 0;
		const values = [...new Set(this.#responses.get(declaration.identifier) ?? [])];
		let sum = 0;
		for (const value of values) {
			const entry = mapping.entries.find(
				({ key, caseSensitive }) =>
					equalValue(key, value) ||
					(declaration.baseType === 'string' && !caseSensitive && key.toLowerCase() === String(value).toLowerCase()) ||
					(['integer', 'float'].includes(declaration.baseType) &&
						parseNumber(key) !== null &&
						parseNumber(key) === parseNumber(String(value)))
			);
			sum += entry ? entry.value : mapping.fallback;
		}
		return Math.min(mapping.upper ?? Infinity, Math.max(mapping.lower ?? -Infinity, sum));
	}

	#match(a: Value, b: Value, cardinality = ''): Value {
		if (a === null || b === null) return null;
		if (a.length !== b.length) return [false];
		if (cardinality === 'ordered') return [a.every((value, at) => equalValue(value, b[at]!))];
		const within = (some: typeof a, all: typeof a) =>
			some.every((value) => all.some((other) => equalValue(value, other)));
		return [within(a, b) && within(b, a)];
	}

	#rule(rule: XmlElement): void {
		if (this.#stopped) return;
		if (rule.name === 'setOutcomeValue')
			this.outcomes.set(rule.attributes.identifier ?? '', this.value(childrenOf(rule)[0]));
		else if (rule.name === 'responseCondition') {
			for (const branch of childrenOf(rule)) {
				const parts = childrenOf(branch);
				if (branch.name !== 'responseElse' && !isTrue(this.value(parts[0]))) continue;
				for (const inner of branch.name === 'responseElse' ? parts : parts.slice(1)) this.#rule(inner);
				break;
			}
		} else if (rule.name === 'lookupOutcomeValue') this.#lookUp(rule);
		else if (rule.name === 'exitResponse') this.#stopped = true;
		else if (rule.name === 'responseProcessingFragment') for (const inner of childrenOf(rule)) this.#rule(inner);
		else throw new UnknownRule(`the rule “${rule.name}”`);
	}

	/** Sets an outcome from its table (2.1, 5.2: matchTable, interpolationTable). */
	#lookUp(rule: XmlElement): void {
		const name = rule.attributes.identifier ?? '';
		const value = numberOf(this.value(childrenOf(rule)[0]));
		const declaration = childrenOf(this.#item, 'outcomeDeclaration').find(
			(node) => node.attributes.identifier === name
		);
		const table = declaration && (childOf(declaration, 'matchTable') ?? childOf(declaration, 'interpolationTable'));
		if (!table) throw new UnknownRule('a look-up without a table');
		const found =
			value === null
				? undefined
				: childrenOf(table).find(({ name: kind, attributes }) => {
						const source = parseNumber(attributes.sourceValue ?? '') ?? 0;
						if (kind === 'matchTableEntry') return source === value;
						return attributes.includeBoundary === 'false' ? value > source : value >= source;
					});
		const target = found?.attributes.targetValue ?? table.attributes.defaultValue;
		const numeric = ['float', 'integer'].includes(declaration.attributes.baseType ?? '');
		this.outcomes.set(name, target === undefined ? null : [numeric ? (parseNumber(target) ?? 0) : target]);
	}

	/** What an expression comes to. Throws an UnknownRule. */
	value(node: XmlElement | undefined): Value {
		if (!node) return null;
		const name = node.attributes.identifier ?? '';
		switch (node.name) {
			case 'variable':
				return this.#responses.has(name) || this.#declarations.has(name)
					? (this.#responses.get(name) ?? null)
					: (this.outcomes.get(name) ?? null);
			case 'correct':
				return this.#correct(this.#declarations.get(name));
			case 'mapResponse': {
				const declaration = this.#declarations.get(name);
				return declaration ? [this.#map(declaration)] : null;
			}
			case 'mapResponsePoint': {
				const declaration = this.#declarations.get(name);
				return declaration ? [this.#mapPoints(declaration)] : null;
			}
			case 'baseValue': {
				const text = settledValue(trimmed(node), node.attributes.baseType ?? '');
				if (node.attributes.baseType === 'boolean') return [text === 'true'];
				return [['float', 'integer'].includes(node.attributes.baseType ?? '') ? (parseNumber(text) ?? 0) : text];
			}
			case 'default':
				return this.#defaults.get(name) ?? null;
			case 'null':
				return null;
			default:
				return this.#operation(node);
		}
	}

	#operation(node: XmlElement): Value {
		const operands = childrenOf(node);
		const values = () => operands.map((operand) => this.value(operand));
		const numbers = (): number[] | null => {
			const found: number[] = [];
			for (const operand of operands)
				for (const one of this.value(operand) ?? [null]) {
					const number = typeof one === 'number' ? one : typeof one === 'string' ? parseNumber(one) : null;
					if (number === null) return null;
					found.push(number);
				}
			return found;
		};
		const compare = (test: (a: number, b: number) => boolean): Value => {
			const found = numbers();
			return found?.length === 2 ? [test(found[0]!, found[1]!)] : null;
		};
		switch (node.name) {
			case 'inside': {
				const [points] = values();
				const shape = shapeOf(node, '');
				return points ? [points.some((point) => inShape(shape, pointOf(String(point))))] : null;
			}
			case 'patternMatch': {
				const [value] = values();
				if (!value) return null;
				const [text, pattern] = [String(value[0]), node.attributes.pattern ?? ''];
				return [text.startsWith(patternMark) ? text.slice(1) === pattern : fitsPattern(pattern, text)];
			}
			case 'equalRounded': {
				const [a, b] = values().map(numberOf);
				if (a === null || b === null || a === undefined || b === undefined) return null;
				const figures = Number(node.attributes.figures ?? 0);
				// files that leave the mode out mean places behind the point, whatever the standard's default is
				const mode = node.attributes.roundingMode === 'significantFigures' ? 'significantFigures' : 'decimalPlaces';
				return [roundedTo(a, figures, mode) === roundedTo(b, figures, mode)];
			}
			case 'anyN': {
				const count = values().filter(isTrue).length;
				const [least, most] = [Number(node.attributes.min ?? 0), Number(node.attributes.max ?? Infinity)];
				return [count >= least && count <= most];
			}
			case 'delete': {
				const [one, container] = values();
				return container ? container.filter((value) => !one || !equalValue(value, one[0]!)) : null;
			}
			case 'index': {
				const value = values()[0]?.[Number(node.attributes.n ?? 1) - 1];
				return value === undefined ? null : [value];
			}
			case 'isNull': {
				const [value] = values();
				return [value === null || value === undefined || value.length === 0 || (value.length === 1 && value[0] === '')];
			}
			case 'match': {
				const [a, b] = values();
				const ordered = operands.some(
					(operand) => this.#declarations.get(operand.attributes.identifier ?? '')?.cardinality === 'ordered'
				);
				return this.#match(a ?? null, b ?? null, ordered ? 'ordered' : '');
			}
			case 'and': {
				return [values().every(isTrue)];
			}
			case 'or':
				return [values().some(isTrue)];
			case 'not': {
				const [value] = values();
				return value ? [!isTrue(value)] : null;
			}
			case 'multiple':
			case 'ordered': {
				const all = values().flatMap((value) => value ?? []);
				return all.length ? all : null;
			}
			case 'member': {
				const [one, container] = values();
				return one && container ? [container.some((value) => equalValue(value, one[0]!))] : null;
			}
			case 'contains': {
				const [container, part] = values();
				return container && part ? [part.every((one) => container.some((value) => equalValue(value, one)))] : null;
			}
			case 'containerSize':
				return [values()[0]?.length ?? 0];
			case 'equal': {
				const [a, b] = values().map(numberOf);
				if (a === null || b === null || a === undefined || b === undefined) return null;
				const correctFirst = operands[0]?.name === 'correct' || operands[0]?.name === 'baseValue';
				const [value, target] = correctFirst ? [b, a] : [a, b];
				const mode = node.attributes.toleranceMode ?? 'exact';
				if (mode === 'exact') return [value === target];
				const { below, above } = toleranceOf(node, target);
				const [least, most] = [target - below, target + above];
				const slack = 1e-9 * Math.max(1, Math.abs(target));
				return [
					(node.attributes.includeLowerBound === 'false' ? value > least + slack : value >= least - slack) &&
						(node.attributes.includeUpperBound === 'false' ? value < most - slack : value <= most + slack)
				];
			}
			case 'stringMatch': {
				const [a, b] = values();
				if (!a || !b) return null;
				const [x, y] = [String(a[0]), String(b[0])].map((text) =>
					node.attributes.caseSensitive === 'false' ? text.toLowerCase() : text
				) as [string, string];
				return [node.attributes.substring === 'true' ? x.includes(y) : x === y];
			}
			case 'lt':
				return compare((a, b) => a < b);
			case 'lte':
				return compare((a, b) => a <= b);
			case 'gt':
				return compare((a, b) => a > b);
			case 'gte':
				return compare((a, b) => a >= b);
			case 'substring': {
				const [part, whole] = values();
				if (!part || !whole) return null;
				const plain = (value: Value) =>
					node.attributes.caseSensitive === 'false' ? String(value![0]).toLowerCase() : String(value![0]);
				return [plain(whole).includes(plain(part))];
			}
			case 'mathConstant':
				return [node.attributes.name === 'e' ? Math.E : Math.PI];
			default: {
				const operation = operationOf(node);
				if (!operation) throw new UnknownRule(`the expression “${node.attributes.name ?? node.name}”`);
				const found = numbers();
				const result = found?.length ? operation(found) : null;
				return result === null ? null : [result];
			}
		}
	}
}

/** How far below and above a target a number may lie by an `equal` (QTI 2.1, 15.3: relative tolerances are in percent). */
export function toleranceOf(node: XmlElement, target: number): { below: number; above: number } {
	const [first = 0, second = first] = (node.attributes.tolerance ?? '')
		.trim()
		.split(/\s+/)
		.map((text) => parseNumber(text) ?? 0);
	const scale = node.attributes.toleranceMode === 'relative' ? Math.abs(target) / 100 : 1;
	return { below: first * scale, above: second * scale };
}
