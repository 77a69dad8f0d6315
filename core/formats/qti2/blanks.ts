import { cleanNodes, markupOfNodes } from '../../markup/clean';
import { blankMarker } from '../../markup/markers';
import type { Blank, FillBlanksQuestion, Side } from '../../model/question';
import { childrenOf, descendants, trimmed, type XmlElement, type XmlNode } from '../../xml/tree';
import { acceptedNumbers } from '../numbers';
import { weigh } from '../weigh';
import { acceptedTexts, numbersIn, textsIn, wrongText } from './entry';
import { feedbackByAnswers, markSets } from './marking';
import { UnknownRule, type ResponseDeclaration, type Value } from './process';
import { declarationOf, promptNodes, runAll, simplified, stemOf, usesOf, type Reading } from './reading';

const blankNames = new Set([
	'textEntryInteraction',
	'inlineChoiceInteraction',
	'choiceInteraction',
	'extendedTextInteraction',
	'sliderInteraction'
]);
const inline = new Set(['textEntryInteraction', 'inlineChoiceInteraction']);
const round = (value: number) => Math.round(value * 1e6) / 1e6;

/** Whether interactions can be held together as the blanks of one question. */
export function areBlanks(interactions: XmlElement[]): boolean {
	return interactions.every((one) => blankNames.has(one.name));
}

/** The rules that speak of a response, so that the texts in them can be tried. */
function rulesAbout(rules: XmlElement | undefined, identifier: string): XmlElement | undefined {
	if (!rules) return undefined;
	const speaks = (node: XmlElement) =>
		childrenOf(node).some((child) => child.name === 'variable' && child.attributes.identifier === identifier);
	const all: XmlElement[] = [];
	const visit = (node: XmlElement) => {
		if (speaks(node)) all.push(node);
		else for (const child of childrenOf(node)) visit(child);
	};
	visit(rules);
	return { ...rules, children: all };
}

/** One interaction of several, with the answers that can be tried on it. */
interface Part {
	interaction: XmlElement;
	declaration: ResponseDeclaration;
	candidates: string[];
	/** Nothing in the file says what is right: a person marks it. */
	open: boolean;
	right: Value;
}

function partOf(reading: Reading, interaction: XmlElement): Part {
	const declaration = declarationOf(reading, interaction);
	const about = rulesAbout(reading.rules, declaration.identifier);
	const listed = descendants(interaction, 'inlineChoice', 'simpleChoice').map((one) => one.attributes.identifier ?? '');
	const keys = [
		...declaration.correct,
		...(declaration.mapping
			? [...declaration.mapping.entries].sort((a, b) => b.value - a.value).map((one) => one.key)
			: [])
	];
	const candidates = listed.length ? listed : [...new Set([...keys, ...textsIn(about)])].filter(Boolean);
	const open =
		(interaction.name === 'extendedTextInteraction' || interaction.name === 'textEntryInteraction') &&
		!candidates.length;
	const several = declaration.cardinality === 'multiple';
	let right: Value = several && declaration.correct.length ? declaration.correct : keys.length ? [keys[0]!] : null;
	if (!right && candidates.length && reading.rules) {
		const score = (text: string) => runAll(reading, new Map([[declaration.identifier, [text]]])).score;
		const [best] = [...candidates].sort((a, b) => score(b) - score(a));
		right = best !== undefined && score(best) > 0 ? [best] : null;
	}
	return { interaction, declaration, candidates, open: open && interaction.name === 'extendedTextInteraction', right };
}

/** Reads several interactions of one item as the blanks of one question; each one's share is found by trying. */
export function readBlanks(reading: Reading, interactions: XmlElement[]): FillBlanksQuestion {
	const { common, cleaning, rules } = reading;
	const parts = interactions.map((one) => partOf(reading, one));
	if (new Set(parts.map((part) => part.declaration.identifier)).size < parts.length)
		throw new UnknownRule('It asks for several answers under one name, so they cannot be told apart.');
	common.stem = stemOf(reading, (node) => {
		const identifier = node.attributes.responseIdentifier ?? '';
		return inline.has(node.name)
			? [blankMarker(identifier)]
			: [...promptNodes(node, cleaning), blankMarker(identifier, true)];
	});
	const declaredWorth = ({ declaration, right }: Part, value: Value) => {
		const { mapping, correct } = declaration;
		if (!value) return 0;
		if (mapping)
			return value.reduce<number>(
				(sum, one) => sum + (mapping.entries.find((entry) => entry.key === one)?.value ?? mapping.fallback),
				0
			);
		return right && correct.length === value.length && value.every((one) => correct.includes(String(one))) ? 1 : 0;
	};
	const rightAll = new Map<string, Value>(parts.map((part) => [part.declaration.identifier, part.right]));
	const weighed = weigh(
		parts.map(({ declaration, open, right }) => ({
			identifier: declaration.identifier,
			open,
			right: right as string[] | null
		})),
		rules
			? (responses) => runAll(reading, responses).score
			: (responses) =>
					parts.reduce((sum, part) => sum + declaredWorth(part, responses.get(part.declaration.identifier) ?? null), 0),
		rules ? common.points : null
	);
	const { top, all, shares } = weighed;
	const opens = parts.filter((part) => part.open).length;
	if (common.points === null && rules && top > 0 && !opens) common.points = round(top);
	if (!weighed.exact)
		simplified(
			reading,
			'Its marking weighs the answers against each other, which cannot be held. Each was given what it adds when all others are right; look at the credit.'
		);
	const blanks = parts.map((part, at) =>
		blankOf(reading, part, shares[at]!, (text) => weighed.credit(part.declaration.identifier, [text]))
	);
	const wrong = new Map<string, Value>(parts.map((part) => [part.declaration.identifier, [wrongText]]));
	feedbackByAnswers(reading, [
		{ outcomes: runAll(reading, rightAll).outcomes, credit: 1 },
		...(parts.length - opens > 1 && !all
			? [
					{
						outcomes: runAll(reading, new Map([...wrong, [parts[0]!.declaration.identifier, parts[0]!.right]]))
							.outcomes,
						credit: shares[0]!
					}
				]
			: []),
		{ outcomes: runAll(reading, wrong).outcomes, credit: 0 }
	]);
	return { ...common, kind: 'fill-blanks', blanks, bank: [], combination: all ? 'all' : 'sum', shuffle: null };
}

const share = (value: number) => Math.max(-1, Math.min(1, round(value)));

function blankOf({ rules, cleaning }: Reading, part: Part, shareOf: number, credit: (text: string) => number): Blank {
	const { interaction, declaration, candidates } = part;
	const base = { identifier: declaration.identifier, share: shareOf };
	if (part.open) return { ...base, form: 'open' };
	if (interaction.name === 'inlineChoiceInteraction' || interaction.name === 'choiceInteraction') {
		const several = declaration.cardinality === 'multiple' && interaction.attributes.maxChoices !== '1';
		const key = new Set(declaration.correct);
		// of several to be ticked, each right one is worth its part of what all of them earn
		const ofSeveral = (identifier: string) =>
			declaration.mapping ? credit(identifier) : key.has(identifier) ? round(1 / key.size) : 0;
		return {
			...base,
			form: 'list',
			several,
			shuffle: interaction.attributes.shuffle === undefined ? null : interaction.attributes.shuffle === 'true',
			entries: descendants(interaction, 'inlineChoice', 'simpleChoice').map((one) => {
				const identifier = one.attributes.identifier ?? '';
				return {
					identifier,
					text: markupOfNodes(
						one.children.filter((node) => typeof node === 'string' || !node.name.startsWith('feedback')),
						cleaning
					),
					credit: several ? ofSeveral(identifier) : credit(identifier)
				};
			})
		};
	}
	if (['integer', 'float'].includes(declaration.baseType)) {
		const { critical, centres } = numbersIn(rulesAbout(rules, declaration.identifier), candidates);
		return {
			...base,
			form: 'number',
			whole: declaration.baseType === 'integer',
			accepted: acceptedNumbers(critical, (value) => credit(String(value)), centres)
		};
	}
	const mapped = declaration.mapping?.entries;
	const accepted = acceptedTexts(candidates, credit).map((one) => {
		const entry = mapped?.find(({ key }) => key === one.text);
		return entry ? { ...one, caseSensitive: entry.caseSensitive } : one;
	});
	return { ...base, form: 'text', accepted };
}

/** Reads words that are laid into the gaps of a text (2.1, 7.3.5). */
export function readGaps(
	reading: Reading,
	interaction: XmlElement,
	declaration: ResponseDeclaration
): FillBlanksQuestion {
	const { common, cleaning } = reading;
	const words = childrenOf(interaction).filter((node) => node.name === 'gapText' || node.name === 'gapImg');
	const gaps = descendants(interaction, 'gap').map((gap) => gap.attributes.identifier ?? '');
	const flow = (node: XmlElement): XmlNode[] =>
		node.children.filter((one) => typeof one === 'string' || !['prompt', 'gapText', 'gapImg'].includes(one.name));
	common.stem = stemOf(reading, (node) => [
		...promptNodes(node, cleaning),
		...cleanNodes(flow(node), {
			...cleaning,
			replace: (one) => (one.name === 'gap' ? [blankMarker(one.attributes.identifier ?? '')] : undefined)
		})
	]);
	const bank: Side[] = words.map((word) => ({
		identifier: word.attributes.identifier ?? '',
		text: markupOfNodes(word.children, cleaning),
		uses: usesOf(word)
	}));
	const pairs = bank.flatMap((word) => gaps.map((gap) => ({ word: word.identifier, gap })));
	const named = new Set([
		...declaration.correct,
		...(declaration.mapping?.entries.map((entry) => entry.key) ?? []),
		...(reading.rules ? descendants(reading.rules, 'baseValue').map(trimmed) : [])
	]);
	const fallback = declaration.mapping?.fallback ?? 0;
	const tried = pairs.filter(({ word, gap }) => fallback !== 0 || pairs.length <= 10 || named.has(`${word} ${gap}`));
	const found = markSets(
		reading,
		declaration,
		tried.map(({ word, gap }) => `${word} ${gap}`),
		true
	);
	if (!found.credits.length) common.points ??= null;
	const best = gaps.map((gap) =>
		Math.max(0, ...tried.flatMap((pair, at) => (pair.gap === gap ? [found.credits[at]!] : [])))
	);
	const shares = best.map((one) => (best.some((other) => other > 0) ? one : 1 / gaps.length));
	return {
		...common,
		kind: 'fill-blanks',
		bank,
		combination: found.combination,
		shuffle: interaction.attributes.shuffle === undefined ? null : interaction.attributes.shuffle === 'true',
		blanks: gaps.map((gap, at) => ({
			identifier: gap,
			share: round(found.combination === 'all' ? 1 / gaps.length : shares[at]!),
			form: 'word',
			words: tried.flatMap((pair, place) =>
				pair.gap === gap && found.credits[place] !== 0
					? [
							{
								word: pair.word,
								credit:
									found.combination === 'all'
										? 1
										: share(found.credits[place]! / (shares[at] || Math.abs(found.credits[place]!)))
							}
						]
					: []
			)
		}))
	};
}
