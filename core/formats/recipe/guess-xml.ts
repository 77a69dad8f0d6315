import type { Document as DomDocument, Element as DomElement } from '@xmldom/xmldom';
import { kindsTogether, truthOf } from '../drafts/words';
import {
	countsFromZero,
	inOption,
	isLabel,
	keyNamed,
	names,
	ordinary,
	partsNamed,
	plain,
	separators,
	sides
} from './names';
import type { Recipe } from './recipe';

const childElements = (node: DomElement) =>
	Array.from(node.childNodes).filter((one): one is DomElement => one.nodeType === 1);
const local = (node: DomElement) => node.localName ?? node.nodeName;
const attributesOf = (node: DomElement) =>
	Array.from({ length: node.attributes.length }, (_, at) => node.attributes.item(at)!.name);

/** Whether an element holds several others of one name, and nothing else. */
const isList = (node: DomElement) =>
	childElements(node).length > 1 && new Set(childElements(node).map(local)).size === 1;

/** The attribute or the element that names what stands around a record below the root, such as the title of a section. */
function labelAround(record: DomElement, root: DomElement): string | null {
	for (let node = record.parentNode; node && node !== root && node.nodeType === 1; node = node.parentNode) {
		const around = node as DomElement;
		const attribute = attributesOf(around).find((name) => isLabel.test(plain(name)));
		if (attribute) return `@${attribute}`;
		const own = childElements(around).find(
			(child) => isLabel.test(plain(child.nodeName)) && !childElements(child).length
		);
		if (own) return own.nodeName;
	}
	return null;
}

/** Whether an element holds options under their letters: A, B, C. */
const isLettered = (node: DomElement) =>
	childElements(node).length > 1 &&
	childElements(node).every((child, at) => child.nodeName.toUpperCase() === String.fromCharCode(65 + at));

/** The fields that elements have: their attributes and the elements in them, by name. */
const fieldsOf = (nodes: DomElement[]) => [
	...new Set(
		nodes
			.slice(0, 200)
			.flatMap((node) => [
				...attributesOf(node).map((name) => `@${name}`),
				...childElements(node).map((child) => child.nodeName)
			])
	)
];

/** The elements of a document by their paths. */
function groupsIn(root: DomElement): Map<string, DomElement[]> {
	const groups = new Map<string, DomElement[]>();
	const visit = (node: DomElement, path: string, depth: number) => {
		if (depth > 60) return;
		for (const child of childElements(node)) {
			const here = `${path}/${child.nodeName}`;
			const group = groups.get(here);
			if (group) group.push(child);
			else groups.set(here, [child]);
			visit(child, here, depth + 1);
		}
	};
	visit(root, `/${root.nodeName}`, 0);
	return groups;
}

/** The elements that read most like questions, with their path; null where none do. */
function questionsIn(root: DomElement): { path: string; nodes: DomElement[] } | null {
	const scored = [...groupsIn(root)].map(([path, nodes]) => {
		const fields = fieldsOf(nodes).map(plain);
		const has = (name: string) => fields.some((field) => names[name]!.test(field));
		const answerable = has('options') || has('key') || has('accepted') || has('pairs') || has('numeric');
		const kinded = has('kind') && !has('pairs');
		return { path, nodes, score: has('stem') && (answerable || kinded) ? Object.keys(names).filter(has).length : 0 };
	});
	const [best] = scored.sort((a, b) => b.score - a.score || b.nodes.length - a.nodes.length);
	return best && best.score >= 2 ? best : null;
}

/** A recipe in the making, for elements that are questions. */
class XmlGuess {
	readonly recipe: Recipe;
	readonly #nodes: DomElement[];
	readonly #fields: string[];
	readonly #taken = new Set<string>();

	constructor({ path, nodes }: { path: string; nodes: DomElement[] }) {
		this.recipe = { record: path, categorySeparators: separators };
		this.#nodes = nodes;
		this.#fields = fieldsOf(nodes);
	}

	#grouped(name: string): DomElement[] {
		return this.#nodes.flatMap((node) => childElements(node).filter((child) => child.nodeName === name));
	}

	#field(name: keyof typeof names): string | undefined {
		return keyNamed(this.#fields, names[name]!, this.#taken);
	}

	/** An attribute of some questions and an element of others: whichever is there. */
	#withTwin(found: string): string | string[] {
		const twin = found.startsWith('@') ? found.slice(1) : `@${found}`;
		if (!this.#fields.includes(twin) || this.#taken.has(twin)) return found;
		this.#taken.add(twin);
		return [found, twin];
	}

	/** The entries under a name, which may stand in an element around them all, and the path to them. */
	#entriesOf(name: string): { path: string; nodes: DomElement[] } {
		const own = this.#grouped(name);
		const inner = own.flatMap(childElements);
		return own.some(isList) && new Set(inner.map(local)).size === 1
			? { path: `${name}/${inner[0]!.nodeName}`, nodes: inner }
			: { path: name, nodes: own };
	}

	/** The name under which the options stand; or what stands several times in a question, under a name that says nothing. */
	#optionsName(): string | undefined {
		const elements = this.#fields.filter((name) => !name.startsWith('@'));
		const known = (name: string) => Object.values(names).some((pattern) => pattern.test(plain(name)));
		const repeats = (name: string) =>
			this.#nodes.some((node) => childElements(node).filter((child) => child.nodeName === name).length > 1);
		const isOptions = (name: string) =>
			names.options!.test(plain(name)) &&
			(this.#grouped(name).length > this.#nodes.length * 0.5 ||
				this.#grouped(name).some((node) => isList(node) || isLettered(node)));
		return elements.find(isOptions) ?? elements.find((name) => !known(name) && repeats(name));
	}

	options(): void {
		const { recipe } = this;
		const options = this.#optionsName();
		if (!options) return;
		this.#taken.add(options);
		const inner = this.#grouped(options);
		// a list element around the options, or the options themselves
		const within = inner.flatMap(childElements).map(local);
		const lettered = inner.some(isLettered);
		const wrapped =
			lettered || (inner.some(isList) && new Set(within).size === 1 && inner.length <= this.#nodes.length);
		const entries = wrapped ? inner.flatMap(childElements) : inner;
		recipe.options = lettered ? `${options}/*` : wrapped ? `${options}/${entries[0]!.nodeName}` : options;
		const parts = fieldsOf(entries);
		Object.assign(recipe, partsNamed(parts));
		if (recipe.optionRight === undefined && recipe.credit === undefined)
			recipe.optionRight = parts.find((name) => {
				const texts = entries.map((node) => node.getAttribute(name.slice(1)) ?? '').filter(Boolean);
				return name.startsWith('@') && texts.length > 0 && texts.every((text) => truthOf(text, true) !== null);
			});
		if (recipe.optionRight === undefined) delete recipe.optionRight;
		if (recipe.credit) {
			const key = (recipe.credit as string).replace(/^@/, '');
			if (entries.some((node) => Math.abs(Number(node.getAttribute(key))) > 1)) recipe.creditScale = 'percent';
		}
		if (recipe.optionText === undefined) recipe.optionText = '.';
	}

	ordinary(root: DomElement): void {
		for (const name of ordinary) {
			const key = this.#field(name);
			if (key !== undefined) (this.recipe as Record<string, unknown>)[name] = this.#withTwin(key);
		}
		const label = this.recipe.category === undefined ? labelAround(this.#nodes[0]!, root) : null;
		if (label) this.recipe.categoryFrom = { ancestors: label };
	}

	accepted(): void {
		const accepted = this.#field('accepted');
		if (!accepted) return;
		const entries = this.#entriesOf(accepted);
		this.recipe.accepted = entries.path;
		const parts = fieldsOf(entries.nodes);
		const text = parts.find((part) => inOption.optionText!.test(plain(part)));
		const credit = parts.find((part) => inOption.credit!.test(plain(part)));
		if (text) this.recipe.acceptedText = text;
		if (credit) this.recipe.acceptedCredit = credit;
	}

	numeric(): void {
		const numeric = this.#field('numeric');
		if (!numeric) return;
		const parts = numeric.startsWith('@') ? [] : fieldsOf(this.#grouped(numeric));
		const value = parts.find((part) => /^(is|value|answer|number)$/.test(plain(part)));
		const within = parts.find((part) => names.tolerance!.test(plain(part)));
		this.recipe.numeric = value ? `${numeric}/${value}` : numeric;
		if (within) this.recipe.tolerance = `${numeric}/${within}`;
	}

	pairs(): void {
		const pairs = this.#field('pairs');
		if (!pairs) return;
		const entries = this.#entriesOf(pairs);
		this.recipe.pairs = entries.path;
		const parts = fieldsOf(entries.nodes);
		for (const [side, pattern] of sides) {
			const name = parts.find((part) => pattern.test(plain(part)));
			if (name) this.recipe[side as 'left'] = name;
		}
	}

	#textsOf(path: Recipe['key']): string[] {
		return [path ?? []]
			.flat()
			.flatMap((name) =>
				name.startsWith('@')
					? this.#nodes.flatMap((node) => node.getAttribute(name.slice(1)) ?? [])
					: this.#grouped(name).flatMap((node) => (node.textContent ?? '').trim())
			);
	}

	/** What the words for kinds mean, and the forms that keys can have. */
	words(): void {
		const kinds = kindsTogether(this.#textsOf(this.recipe.kind));
		if (kinds) this.recipe.kinds = kinds;
		const numbers = this.#textsOf(this.recipe.key).filter((text) => /^\d{1,2}$/.test(text));
		const index = countsFromZero(numbers.map(Number), this.recipe.key) ? 'index0' : 'index';
		this.recipe.keyForms = ['text', 'letter', index, 'truth', 'answer'];
	}
}

/** A recipe for an XML document, guessed from the names of its elements and attributes; null where none reads like questions. */
export function guessXml(document: DomDocument): Recipe | null {
	const root = document.documentElement;
	const questions = root && questionsIn(root);
	if (!questions) return null;
	const guess = new XmlGuess(questions);
	guess.options();
	guess.ordinary(root);
	guess.accepted();
	guess.numeric();
	guess.pairs();
	guess.words();
	return guess.recipe;
}
