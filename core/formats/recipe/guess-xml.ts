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
	for (let one = record.parentNode; one && one !== root && one.nodeType === 1; one = one.parentNode) {
		const around = one as DomElement;
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

/** A recipe for an XML document, guessed from the names of its elements and attributes; null where none reads like questions. */
export function guessXml(document: DomDocument): Recipe | null {
	const root = document.documentElement;
	if (!root) return null;
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
	const fieldsOf = (nodes: DomElement[]) => [
		...new Set(
			nodes
				.slice(0, 200)
				.flatMap((node) => [
					...attributesOf(node).map((name) => `@${name}`),
					...childElements(node).map((one) => one.nodeName)
				])
		)
	];
	const scored = [...groups].map(([path, nodes]) => {
		const fields = fieldsOf(nodes).map(plain);
		const has = (name: string) => fields.some((field) => names[name]!.test(field));
		const answerable = has('options') || has('key') || has('accepted') || has('pairs') || has('numeric');
		const kinded = has('kind') && !has('pairs');
		return { path, nodes, score: has('stem') && (answerable || kinded) ? Object.keys(names).filter(has).length : 0 };
	});
	const [best] = scored.sort((a, b) => b.score - a.score || b.nodes.length - a.nodes.length);
	if (!best || best.score < 2) return null;
	const fields = fieldsOf(best.nodes);
	const recipe: Recipe = { record: best.path, categorySeparators: separators };
	const taken = new Set<string>();
	const grouped = (name: string) =>
		best.nodes.flatMap((node) => childElements(node).filter((one) => one.nodeName === name));
	const field = (name: keyof typeof names) => keyNamed(fields, names[name]!, taken);
	/** An attribute of some questions and an element of others: whichever is there. */
	const withTwin = (found: string) => {
		const twin = found.startsWith('@') ? found.slice(1) : `@${found}`;
		if (!fields.includes(twin) || taken.has(twin)) return found;
		taken.add(twin);
		return [found, twin];
	};
	const known = (name: string) => Object.values(names).some((pattern) => pattern.test(plain(name)));
	const repeats = (name: string) =>
		best.nodes.some((node) => childElements(node).filter((one) => one.nodeName === name).length > 1);
	const options =
		fields.find(
			(name) =>
				!name.startsWith('@') &&
				names.options!.test(plain(name)) &&
				(grouped(name).length > best.nodes.length * 0.5 ||
					grouped(name).some((node) => isList(node) || isLettered(node)))
		) ??
		// or what stands several times in a question, under a name that says nothing
		fields.find((name) => !name.startsWith('@') && !known(name) && repeats(name));
	if (options) {
		taken.add(options);
		const inner = grouped(options);
		// a list element around the options, or the options themselves
		const within = inner.flatMap(childElements).map(local);
		const lettered = inner.some(isLettered);
		const wrapped = lettered || (inner.some(isList) && new Set(within).size === 1 && inner.length <= best.nodes.length);
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
	for (const name of ordinary) {
		const key = field(name);
		if (key !== undefined) (recipe as Record<string, unknown>)[name] = withTwin(key);
	}
	if (recipe.category === undefined) {
		const label = labelAround(best.nodes[0]!, root);
		if (label) recipe.categoryFrom = { ancestors: label };
	}
	/** The entries under a name, which may stand in an element around them all, and the path to them. */
	const entriesOf = (name: string) => {
		const own = grouped(name);
		const inner = own.flatMap(childElements);
		return own.some(isList) && new Set(inner.map(local)).size === 1
			? { path: `${name}/${inner[0]!.nodeName}`, nodes: inner }
			: { path: name, nodes: own };
	};
	const accepted = field('accepted');
	if (accepted) {
		const entries = entriesOf(accepted);
		recipe.accepted = entries.path;
		const parts = fieldsOf(entries.nodes);
		const text = parts.find((one) => inOption.optionText!.test(plain(one)));
		const credit = parts.find((one) => inOption.credit!.test(plain(one)));
		if (text) recipe.acceptedText = text;
		if (credit) recipe.acceptedCredit = credit;
	}
	const numeric = field('numeric');
	if (numeric) {
		const parts = numeric.startsWith('@') ? [] : fieldsOf(grouped(numeric));
		const value = parts.find((one) => /^(is|value|answer|number)$/.test(plain(one)));
		const within = parts.find((one) => names.tolerance!.test(plain(one)));
		recipe.numeric = value ? `${numeric}/${value}` : numeric;
		if (within) recipe.tolerance = `${numeric}/${within}`;
	}
	const pairs = field('pairs');
	if (pairs) {
		const entries = entriesOf(pairs);
		recipe.pairs = entries.path;
		const parts = fieldsOf(entries.nodes);
		for (const [side, pattern] of sides) {
			const name = parts.find((one) => pattern.test(plain(one)));
			if (name) recipe[side as 'left'] = name;
		}
	}
	const textsOf = (path: Recipe['key']) =>
		[path ?? []]
			.flat()
			.flatMap((name) =>
				name.startsWith('@')
					? best.nodes.flatMap((node) => node.getAttribute(name.slice(1)) ?? [])
					: grouped(name).flatMap((node) => (node.textContent ?? '').trim())
			);
	const kinds = kindsTogether(textsOf(recipe.kind));
	if (kinds) recipe.kinds = kinds;
	const numbers = textsOf(recipe.key).filter((text) => /^\d{1,2}$/.test(text));
	recipe.keyForms = [
		'text',
		'letter',
		countsFromZero(numbers.map(Number), recipe.key) ? 'index0' : 'index',
		'truth',
		'answer'
	];
	return recipe;
}
