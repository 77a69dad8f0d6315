import { childOf, childrenOf, trimmed, type XmlElement } from '../../xml/tree';
import { inShape } from '../../kinds/areas';
import type { Shape } from '../../model/pieces';
import { parseNumber } from '../../numbers/numbers';
import { shapeOf } from '../shapes';
import { matches, operate } from './operators';
import { equalValue, isTrue, numberOf, pointOf, UnknownRule, UnknownTemplate, type Value } from './values';

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
	const bounds = (declaration: XmlElement) => ({
		lower: parseNumber(declaration.attributes.lowerBound ?? ''),
		upper: parseNumber(declaration.attributes.upperBound ?? ''),
		fallback: parseNumber(declaration.attributes.defaultValue ?? '0') ?? 0
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
					matches(
						this.#responses.get(response.identifier) ?? null,
						this.#correct(response),
						response.cardinality === 'ordered'
					)
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
		const isOrdered = () =>
			operands.some(
				(operand) => this.#declarations.get(operand.attributes.identifier ?? '')?.cardinality === 'ordered'
			);
		const value = (operand: XmlElement) => this.value(operand);
		return operate({ node, operands, value, values: () => operands.map(value), isOrdered });
	}
}
