import { shownValue } from '../../kinds/calculated/datasets';
import { Generator, stepsIn } from '../../numbers/generator';
import { beginning } from '../../markup/text';
import { childOf, childrenOf, element, trimmed, type XmlElement, type XmlNode } from '../../xml/tree';
import { parseNumber } from '../../numbers/numbers';
import { Processing } from './process';
import { UnknownRule, type Value } from './values';

const mostTries = 200;
const mostSaid = 120;
const identifierOf = (node: XmlElement) => node.attributes.identifier ?? '';

/** One draw of the numbers of an item template. */
class Draw {
	readonly correct = new Map<string, Value>();
	/** Whether all constraints hold. */
	kept = true;
	readonly #processing: Processing;
	readonly #random: Generator;
	#stopped = false;

	constructor(item: XmlElement, random: Generator) {
		this.#random = random;
		this.#processing = new Processing(item, [], new Map());
		this.values.clear();
		for (const node of childrenOf(item, 'templateDeclaration')) {
			const given = childrenOf(childOf(node, 'defaultValue') ?? { ...node, children: [] }, 'value').map(trimmed);
			const numeric = /^(integer|float)$/.test(node.attributes.baseType ?? '');
			this.values.set(
				identifierOf(node),
				given.length ? given.map((one) => (numeric ? (parseNumber(one) ?? 0) : one)) : null
			);
		}
		for (const rule of childrenOf(childOf(item, 'templateProcessing') ?? { ...item, children: [] })) this.#rule(rule);
	}

	/** The values of the template variables, by name. */
	get values(): Map<string, Value> {
		return this.#processing.outcomes;
	}

	/** A limit, which may be the value of a variable (2.1, 12.3: integerOrTemplateVariableRef). */
	#limit(text: string | undefined): number | null {
		const name = text?.replace(/^\{|\}$/g, '') ?? '';
		const value = this.values.get(name)?.[0];
		return typeof value === 'number' ? value : parseNumber(name);
	}

	#value(node: XmlElement | undefined): Value {
		return node ? this.#processing.value(this.#drawn(node)) : null;
	}

	/** An expression in which everything that is left to chance has its value. */
	#drawn(node: XmlElement): XmlElement {
		const { min, max, step } = node.attributes;
		const number = (value: number) => element('baseValue', { baseType: 'float' }, [String(value)]);
		if (node.name === 'randomInteger') {
			const [least, most] = [this.#limit(min) ?? 0, this.#limit(max) ?? 0];
			const each = this.#limit(step) || 1;
			return number(least + each * this.#random.below(stepsIn(least, most, each)));
		}
		if (node.name === 'randomFloat') {
			const [least, most] = [this.#limit(min) ?? 0, this.#limit(max) ?? 0];
			return number(Number((least + ((most - least) * this.#random.next()) / 2 ** 32).toPrecision(6)));
		}
		const children = node.children.map((child) => (typeof child === 'string' ? child : this.#drawn(child)));
		const drawn = { ...node, children };
		if (node.name !== 'random') return drawn;
		const values = this.#processing.value(childrenOf(drawn)[0]) ?? [];
		if (!values.length) throw new UnknownRule('a draw from nothing');
		return valueNode([values[this.#random.below(values.length)]!]);
	}

	#rule(rule: XmlElement): void {
		if (this.#stopped || !this.kept) return;
		const [first, ...more] = childrenOf(rule);
		if (rule.name === 'setTemplateValue') this.values.set(identifierOf(rule), this.#value(first));
		else if (rule.name === 'setCorrectResponse') this.correct.set(identifierOf(rule), this.#value(first));
		else if (rule.name === 'templateConstraint') this.kept = this.#value(first)?.[0] === true;
		else if (rule.name === 'exitTemplate') this.#stopped = true;
		else if (rule.name === 'templateCondition') {
			for (const branch of [first, ...more]) {
				const parts = branch ? childrenOf(branch) : [];
				if (branch?.name !== 'templateElse' && this.#value(parts[0])?.[0] !== true) continue;
				for (const inner of branch?.name === 'templateElse' ? parts : parts.slice(1)) this.#rule(inner);
				break;
			}
		} else if (rule.name !== 'setDefaultValue') throw new UnknownRule(`the rule “${rule.name}”`);
	}
}

/** A value as an expression that comes to it. */
function valueNode(value: Value): XmlElement {
	const nodes = (value ?? []).map((single) =>
		element(
			'baseValue',
			{ baseType: typeof single === 'number' ? 'float' : typeof single === 'boolean' ? 'boolean' : 'string' },
			[String(single)]
		)
	);
	const [only] = nodes;
	if (!only) return element('null');
	return nodes.length === 1 ? only : element('multiple', {}, nodes);
}

function shown(value: Value, format: string | undefined): string {
	const decimals = /^%(?:\.(\d+)f|[di])$/.exec(format ?? '');
	return (value ?? [])
		.map((one) => (typeof one === 'number' ? shownValue(one, decimals ? Number(decimals[1] ?? 0) : null) : String(one)))
		.join(', ');
}

const limits = new Set(['tolerance', 'figures', 'n', 'min', 'max']);

/** The item with the numbers of a draw in the places of its variables. */
function withValues(item: XmlElement, { values, correct }: Draw): XmlElement {
	const isShown = ({ attributes }: XmlElement) => {
		const name = attributes.templateIdentifier;
		if (name === undefined) return true;
		const holds = (values.get(name) ?? []).some((one) => String(one) === attributes.identifier);
		return holds === ((attributes.showHide ?? 'show') === 'show');
	};
	const replace = (node: XmlElement, rules: boolean): XmlNode[] => {
		const name = identifierOf(node);
		if (node.name === 'templateProcessing' || node.name === 'templateDeclaration' || !isShown(node)) return [];
		if (node.name === 'printedVariable')
			return [values.has(name) ? shown(values.get(name)!, node.attributes.format) : '…'];
		if (rules && node.name === 'variable' && values.has(name)) return [valueNode(values.get(name)!)];
		if (node.name === 'correctResponse') return [node];
		const inRules = rules || node.name === 'responseProcessing';
		const children = node.children.flatMap((child) => (typeof child === 'string' ? [child] : replace(child, inRules)));
		if (node.name === 'templateBlock' || node.name === 'templateInline') return children;
		if (node.name === 'responseDeclaration' && correct.has(name)) {
			const right = (correct.get(name) ?? []).map((one) => element('value', {}, [shown([one], undefined)]));
			return [
				{
					...node,
					children: [
						element('correctResponse', {}, right),
						...children.filter((child) => typeof child === 'string' || child.name !== 'correctResponse')
					]
				}
			];
		}
		const attributes = inRules ? { ...node.attributes } : node.attributes;
		for (const key of inRules ? Object.keys(attributes) : [])
			if (limits.has(key))
				attributes[key] = attributes[key]!.split(/\s+/)
					.map((word) => {
						const value = values.get(word.replace(/^\{|\}$/g, ''));
						return value ? String(value[0]) : word;
					})
					.join(' ');
		return [{ ...node, attributes, children }];
	};
	return replace(item, false)[0] as XmlElement;
}

/** Whether an item is made anew for each student, from variables of its own (2.1, section 12). */
export const isTemplateItem = (item: XmlElement) =>
	childOf(item, 'templateProcessing') !== undefined || childOf(item, 'templateDeclaration') !== undefined;

/**
 * One version of an item template (2.1, section 12), with numbers drawn for it, the same each time; and in words which.
 * Throws an UnknownRule where a rule cannot be followed or no numbers keep the constraints.
 */
export function workedOutItem(item: XmlElement): { item: XmlElement; values: string } {
	for (let attempt = 0; attempt < mostTries; attempt += 1) {
		const draw = new Draw(item, new Generator(`version ${attempt} of ${identifierOf(item)}`));
		if (!draw.kept) continue;
		const values = [...draw.values].map(([name, value]) => `${name} = ${shown(value, undefined)}`).join(', ');
		return { item: withValues(item, draw), values: beginning(values, mostSaid) };
	}
	throw new UnknownRule('It is made anew for each student, and no numbers were found that keep its constraints.');
}
