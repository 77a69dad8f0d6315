import type { Document as DomDocument, Element as DomElement } from '@xmldom/xmldom';
import { kindsTogether, truthOf } from '../assemble';
import { guessColumns } from '../table/headings';
import type { Recipe } from './recipe';

/** Words that people and programs use for parts of a question, in plain small letters; the first that fits counts. */
const names: Record<string, RegExp> = {
	title: /^(title|name|heading|caption|label)$/,
	stem: /^(stem|question|questiontext|prompt|ask|text|body|statement|problem|content|q|wording|querytext|frage|fragetext|aufgabe|enonce|pregunta|domanda|vraag)$/,
	kind: /^(type|kind|questiontype|qtype|sort|format|itemtype)$/,
	options:
		/^(options|choices|answers|alternatives|alts|alt|option|choice|responses|answeroptions|answerchoices|possibleanswers|variants|antwort|antworten|auswahl|reponses?|choix|respuestas?|opciones|risposte|antwoorden)$/,
	key: /^(answer|key|correct|correctanswer|correctanswers|correctoption|correctoptions|right|rightanswer|solution|answers|correctindex|correctchoices?|answerkey|correct(?:option|answer|choice)?ids?|correctanswerindex|losung|richtig|bonnereponse|respuestacorrecta)$/,
	points: /^(points|marks|score|worth|weight|mark|maxscore|pts|punkte|puntos|punti|punten)$/,
	category:
		/^(category|topic|chapter|subject|section|unit|folder|bank|module|theme|thema|kategorie|categorie|categoria)$/,
	tags: /^(tags|keywords|labels|tag)$/,
	generalFeedback: /^(feedback|explanation|explain|why|because|rationale|generalfeedback|comment|remark|note|reason)$/,
	correctFeedback: /^(correctfeedback|feedbackcorrect|rightfeedback)$/,
	incorrectFeedback: /^(incorrectfeedback|feedbackincorrect|wrongfeedback)$/,
	shuffle: /^(shuffle|mix|random|randomize|randomise|shuffled|shuffleoptions)$/,
	tolerance: /^(tolerance|margin|within|delta)$/,
	wrong: /^(?:incorrect|wrong)(?:answers?|options?|choices?)?$|^distractors?$/,
	difficulty: /^(difficulty|level)$/,
	hint: /^(hint|hints|tip)$/,
	accepted: /^(accepted|accept|acceptedanswers|acceptable)$/,
	numeric: /^(value|number|numericanswer)$/,
	pairs: /^(pairs|matches|pair|match|matching)$/,
	order: /^(order|sequence|ordering|steps|items)$/,
	language: /^(language|lang)$/
};
const inOption: Record<string, RegExp> = {
	optionText: /^(text|label|option|answer|content|value|title|body|choice)$/,
	credit: /^(credit|score|weight|fraction|percent|points|worth|share|grade)$/,
	optionIdentifier: /^(id|identifier|ident|key|letter|ref|name)$/,
	optionRight: /^(correct|iscorrect|right|isright|key|iskey|istrue|isanswer|richtig|korrekt|juste|correcto|correcta)$/,
	optionFeedback: /^(feedback|remark|comment|explanation|rationale)$/
};
const sides: [string, RegExp][] = [
	['left', /^(left|term|this|from|prompt|question|key|a|source|item|premise)$/],
	['right', /^(right|definition|that|to|answer|value|b|target|match|response)$/]
];
const plain = (name: string) =>
	name
		.normalize('NFD')
		.toLowerCase()
		.replace(/[^a-z]/g, '');
const isSentence = (value: unknown) => typeof value === 'string' && value.trim().split(/\s+/).length > 2;
const isObject = (value: unknown): value is Record<string, unknown> =>
	typeof value === 'object' && value !== null && !Array.isArray(value);
/** What names a group of questions that stand in it. */
const isLabel = /^(title|name|label|topic|category|section|heading|chapter)$/;
const separators = ['/', '>', '::', '»', '\\'];

function keyNamed(keys: string[], pattern: RegExp, taken: Set<string>): string | undefined {
	const found = keys.find((key) => !taken.has(key) && pattern.test(plain(key)));
	if (found !== undefined) taken.add(found);
	return found;
}

/** The parts of a question that stand by themselves, in the order in which their names are looked for. */
const ordinary = [
	'title',
	'stem',
	'kind',
	'points',
	'category',
	'tags',
	'correctFeedback',
	'incorrectFeedback',
	'generalFeedback',
	'shuffle',
	'difficulty',
	'hint',
	'wrong',
	'key',
	'language'
] as const;

/** Which of the parts of an option is its text, its credit, its mark and its feedback, by their names. */
function partsNamed(parts: string[]): Partial<Recipe> {
	const used = new Set<string>();
	const found: Partial<Recipe> = {};
	for (const field of ['optionRight', 'credit', 'optionFeedback', 'optionText', 'optionIdentifier'] as const) {
		const key = keyNamed(parts, inOption[field]!, used);
		if (key !== undefined) found[field] = key;
	}
	return found;
}

interface Listed {
	path: string;
	records: Record<string, unknown>[];
}

function listsIn(value: unknown, path: string, out: Map<string, Listed>, depth = 0): void {
	if (depth > 40) return;
	if (Array.isArray(value)) {
		const here = `${path}[*]`;
		const records = value.filter(isObject);
		if (records.length) {
			const known = out.get(here) ?? { path: here, records: [] };
			for (const one of records) known.records.push(one);
			out.set(here, known);
		}
		for (const one of value) listsIn(one, here, out, depth + 1);
	} else if (isObject(value))
		for (const [key, one] of Object.entries(value))
			listsIn(one, /^[\w-]+$/.test(key) ? (path ? `${path}.${key}` : key) : `${path}["${key}"]`, out, depth + 1);
}

const scoreOf = (records: Record<string, unknown>[]) => {
	const keys = new Set(records.flatMap((one) => Object.keys(one)).map(plain));
	const has = (name: string) => [...keys].some((key) => names[name]!.test(key));
	if (!has('stem')) return 0;
	return 1 + Object.keys(names).filter(has).length + (has('options') || has('key') ? 5 : 0);
};

/** Whether a list is one of the parts of a question that has a stem of its own, such as its pairs, and no list of questions. */
function isPartOf({ path }: Listed, lists: Map<string, Listed>): boolean {
	const found = /^(.*\[\*\])\.?([^.[\]]+)\[\*\]$/.exec(path);
	const name = plain(found?.[2] ?? '');
	if (!found || !['options', 'pairs', 'accepted'].some((part) => names[part]!.test(name))) return false;
	return (lists.get(found[1]!)?.records ?? []).some((one) =>
		Object.keys(one).some((key) => names.stem!.test(plain(key)))
	);
}

/** Whether each of some questions that has both has them as its options and its key. */
const standTogether = (records: Record<string, unknown>[], options: string) =>
	records.some((one) => Array.isArray(one[options]) && Object.keys(one).some((key) => plain(key) === 'answer'));

/** A recipe for a JSON document, guessed from the names of its keys; null where no list of it reads like questions. */
export function guessJson(value: unknown): Recipe | null {
	const lists = new Map<string, Listed>();
	listsIn(value, '', lists);
	const [best] = [...lists.values()]
		.filter((list) => !isPartOf(list, lists))
		.sort((a, b) => scoreOf(b.records) - scoreOf(a.records));
	if (!best || scoreOf(best.records) < 3) return null;
	const keys = [...new Set(best.records.flatMap((one) => Object.keys(one)))];
	const taken = new Set<string>();
	const recipe: Recipe = { record: best.path, categorySeparators: separators };
	const valuesOf = (key: string) =>
		best.records.map((one) => one[key]).filter((one) => one !== null && one !== undefined);
	// a list of options before anything else, so that "answers" is told from an answer
	const optionKey = keys.find(
		(key) => names.options!.test(plain(key)) && valuesOf(key).some((one) => Array.isArray(one) || isObject(one))
	);
	if (
		optionKey !== undefined &&
		!(
			plain(optionKey) === 'answers' &&
			(keys.some((key) => /^(options|choices)$/.test(plain(key))) ||
				(keys.some((key) => plain(key) === 'answer') &&
					!valuesOf(optionKey).flat().some(isObject) &&
					!standTogether(best.records, optionKey)))
		)
	) {
		taken.add(optionKey);
		recipe.options = `${optionKey}[*]`;
		const entries = valuesOf(optionKey).flatMap((one) =>
			Array.isArray(one) ? (one as unknown[]) : isObject(one) ? Object.values(one) : []
		);
		const objects = entries.filter(isObject);
		if (objects.length) {
			const inner = [...new Set(objects.flatMap((one) => Object.keys(one)))];
			Object.assign(recipe, partsNamed(inner));
			if (recipe.credit && objects.some((one) => Math.abs(Number(one[recipe.credit as string])) > 1))
				recipe.creditScale = 'percent';
		}
	}
	const apart = guessColumns(keys);
	// or a list of texts under a name that says nothing, beside a key
	const bare = keys.find(
		(key) =>
			!Object.values(names).some((pattern) => pattern.test(plain(key))) &&
			valuesOf(key).length > best.records.length / 2 &&
			valuesOf(key).every(
				(one) => Array.isArray(one) && one.length > 1 && one.every((part) => typeof part === 'string')
			)
	);
	if (recipe.options === undefined && bare !== undefined && keys.some((key) => names.key!.test(plain(key)))) {
		recipe.options = `${bare}[*]`;
		taken.add(bare);
	}
	// an option in each of several keys: "A", "B", "C"
	if (recipe.options === undefined && Array.isArray(apart.options) && apart.options.length > 1) {
		recipe.options = `[${apart.options.map((name) => `'${name}'`).join(',')}]`;
		for (const name of apart.options) taken.add(name);
	}
	for (const field of [...ordinary, 'tolerance', 'pairs', 'order', 'accepted'] as const) {
		if (field === 'stem' && recipe.stem !== undefined) continue;
		const key = keyNamed(keys, names[field]!, taken);
		if (key === undefined) continue;
		const some = valuesOf(key);
		const lists = some.some(Array.isArray);
		if (field === 'pairs') {
			recipe.pairs = isObject(some[0]) && !lists ? key : `${key}[*]`;
			const [first] = some.flatMap((one) => (Array.isArray(one) ? (one as unknown[]) : [one]));
			if (Array.isArray(first)) {
				recipe.left = '[0]';
				recipe.right = '[1]';
			} else if (isObject(first)) {
				for (const [side, pattern] of sides) {
					const name = Object.keys(first).find((one) => pattern.test(plain(one)));
					if (name) recipe[side as 'left'] = name;
				}
				// an object whose keys are the one side, and its values the other
				if (!lists && !(recipe.left && recipe.right))
					Object.assign(recipe, { pairs: `${key}[*]`, left: '~', right: '.' });
			}
		} else if (field === 'order' || field === 'tags' || field === 'accepted') recipe[field] = lists ? `${key}[*]` : key;
		else if (field === 'key') {
			// one question has "answer", another has "answers"
			const others = keys.filter((name) => !taken.has(name) && names.key!.test(plain(name)));
			const beside = (name: string) => best.records.some((one) => one[name] !== undefined && one[key] !== undefined);
			const more = others.filter((name) => !beside(name));
			for (const name of more) taken.add(name);
			// and in a third both are there: a sentence beside the answer says why
			const reason = others.find((name) => beside(name) && valuesOf(name).every(isSentence));
			if (reason !== undefined && recipe.generalFeedback === undefined) {
				recipe.generalFeedback = reason;
				taken.add(reason);
			}
			recipe.key = more.length ? [key, ...more] : key;
		} else (recipe as Record<string, unknown>)[field] = key;
	}
	// an answer that is an object with a number, and perhaps how far off one may be
	for (const key of [recipe.key ?? []].flat()) {
		const object = valuesOf(key).find((one) => isObject(one) && typeof one.value === 'number');
		if (!object || recipe.numeric !== undefined) continue;
		recipe.numeric = `${key}.value`;
		const within = Object.keys(object).find((name) => names.tolerance!.test(plain(name)));
		if (within) recipe.tolerance = `${key}.${within}`;
	}
	if (recipe.stem === undefined && recipe.title !== undefined) {
		recipe.stem = recipe.title;
		delete recipe.title;
	}
	if (recipe.category === undefined && best.path.split('[*]').length > 2) {
		const label = ancestorLabel(value, best.path);
		if (label) recipe.categoryFrom = { ancestors: label };
	}
	const kinds = kindsTogether(valuesOf(recipe.kind as string).map(String));
	if (kinds) recipe.kinds = kinds;
	const given = [recipe.key ?? []].flat().flatMap(valuesOf).flat();
	recipe.keyForms = recipe.options
		? [
				'text',
				'letter',
				countsFromZero(
					given.filter((one) => typeof one === 'number'),
					recipe.key
				)
					? 'index0'
					: 'index',
				'truth',
				'answer'
			]
		: ['truth', 'answer'];
	return recipe;
}

/** Whether numbers that name options count from 0: one of them is 0, or the key is called an index, as programs do. */
const countsFromZero = (numbers: number[], key: Recipe['key']) =>
	numbers.includes(0) || (numbers.length > 0 && [key ?? []].flat().some((name) => /ind(?:ex|ices)/i.test(name)));

/** The key that names what stands around the records, such as the title of a section. */
function ancestorLabel(value: unknown, path: string): string | null {
	const outer = path.replace(/\.?[^.[\]]*\[\*\]$/, '');
	const lists = new Map<string, Listed>();
	listsIn(value, '', lists);
	const around = lists.get(outer);
	const keys = [...new Set(around?.records.flatMap((one) => Object.keys(one)) ?? [])];
	return keys.find((key) => isLabel.test(plain(key))) ?? null;
}

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
			groups.set(here, [...(groups.get(here) ?? []), child]);
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
