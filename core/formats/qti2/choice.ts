import { cleanNodes, markupOfNodes } from '../../markup/clean';
import { plainText } from '../../markup/text';
import { withCommon, type Markup } from '../../model/question';
import type { ChoiceQuestion } from '../../kinds';
import { childrenOf, descendants, type XmlElement } from '../../xml/tree';
import { isTrueFalse } from '../choices';
import { markSets } from './marking';
import type { ResponseDeclaration } from './process';
import { printed, promptNodes, stemOf, type Reading } from './reading';

/** Reads a choice, or words to be selected in a text (QTI 2.1 information model, 7.2.1 and 7.3.6). */
export function readChoice(
	reading: Reading,
	interaction: XmlElement,
	declaration: ResponseDeclaration
): ChoiceQuestion {
	const { common, cleaning, reports, place } = reading;
	const hottext = interaction.name === 'hottextInteraction';
	const choices = hottext ? descendants(interaction, 'hottext') : childrenOf(interaction, 'simpleChoice');
	const idents = choices.map((choice) => choice.attributes.identifier ?? '');
	const ofOptions = new Map<number, Markup>();
	const texts = choices.map((choice, at) =>
		markupOfNodes(choice.children, {
			...cleaning,
			replace: (node) => {
				if (node.name !== 'feedbackInline' && node.name !== 'feedbackBlock') return printed(node);
				ofOptions.set(at, markupOfNodes(node.children, cleaning));
				return [];
			}
		})
	);
	common.stem = stemOf(reading, (node) => [
		...promptNodes(node, cleaning),
		...(hottext
			? cleanNodes(
					node.children.filter((one) => typeof one === 'string' || one.name !== 'prompt'),
					cleaning
				)
			: [])
	]);
	const several = declaration.cardinality === 'multiple' && interaction.attributes.maxChoices !== '1';
	const named = [
		...new Set([
			...declaration.correct,
			...(declaration.mapping?.entries.filter((entry) => entry.value > 0).map((entry) => entry.key) ?? [])
		])
	];
	const lostKeys = named.filter((key) => idents.filter((one) => one === key).length !== 1);
	const repeated = [...new Set(idents.filter((one, at) => idents.indexOf(one) !== at))];
	if (repeated.length)
		reports.push({
			rule: 'repeated-identifier',
			severity: 'broken',
			message: `Several options share the identifier ${repeated.map((one) => `“${one}”`).join(', ')}, so the key does not say which of them is right. Mark the right one.`,
			place
		});
	if (hottext)
		reports.push({
			rule: 'reshaped',
			severity: 'untidy',
			message:
				'Students select words in a text. Here the words are options below the text; what is right stays the same.',
			place
		});
	const found = markSets(reading, declaration, idents, several, (at) => !repeated.includes(idents[at]!));
	for (const [at, markup] of found.feedback) if (!ofOptions.has(at)) ofOptions.set(at, markup);
	return withCommon(common, {
		kind: several ? 'multiple-response' : isTrueFalse(texts.map(plainText)) ? 'true-false' : 'multiple-choice',
		options: choices.map((choice, at) => ({
			identifier: idents[at]!,
			text: texts[at]!,
			credit: found.credits[at]!,
			pinned: choice.attributes.fixed === 'true',
			...(ofOptions.get(at) ? { feedback: ofOptions.get(at)! } : {})
		})),
		shuffle: hottext
			? false
			: interaction.attributes.shuffle === undefined
				? null
				: interaction.attributes.shuffle === 'true',
		combination: found.combination,
		bounds: found.bounds,
		lostKeys
	});
}
