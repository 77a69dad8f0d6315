import { beginning, fold } from '../../markup/text';
import type { Report } from '../../reports/report';
import { limitWords } from '../choices';
import { childOf, childrenOf, descendantsIn, textOf, type XmlElement } from '../../xml/tree';

const mostWords = 120;
const looked = new Set(['endAttemptInteraction', 'choiceInteraction']);
const quoted = (node: XmlElement) => `“${beginning(fold(textOf(node)), mostWords)}”`;

function limitOf(interaction: XmlElement): string | null {
	const { minChoices = '0', maxChoices = '1' } = interaction.attributes;
	return limitWords(childrenOf(interaction, 'simpleChoice').length, Number(minChoices), Number(maxChoices));
}

/** What is said in an item beside its question, and how it is put into words (QTI 2.1 and 3.0 information models, item). */
const said: ((item: XmlElement, parts: XmlElement[]) => string | null)[] = [
	({ attributes }) =>
		attributes.adaptive === 'true'
			? 'that it is answered in several steps, each with what the one before brought'
			: null,
	({ attributes }) => (attributes.timeDependent === 'true' ? 'that the time it takes counts' : null),
	(_, parts) => {
		const button = parts.find((part) => part.name === 'endAttemptInteraction');
		return button ? `a button of its own, “${button.attributes.title ?? ''}”` : null;
	},
	(item) => {
		const info = childOf(item, 'companionMaterialsInfo');
		return info ? `something to be used beside it, ${quoted(info)}` : null;
	},
	(item) => {
		const info = childOf(item, 'catalogInfo');
		return info ? `words for those who hear or see it in another way, ${quoted(info)}` : null;
	},
	(_, parts) =>
		parts
			.filter((part) => part.name === 'choiceInteraction')
			.map(limitOf)
			.find((limit) => limit !== null) ?? null
];

/** What an item says beside its question that a question here does not hold, as one report; null where there is nothing. */
export function besideQuestion(item: XmlElement, place: Report['place']): Report | null {
	const body = childOf(item, 'itemBody');
	const parts = body ? descendantsIn(body, looked) : [];
	const words = said.map((one) => one(item, parts)).filter((one) => one !== null);
	if (!words.length) return null;
	return {
		rule: 'beside-question',
		severity: 'untidy',
		message: `The file also says ${words.join(', and ')}. A question here does not hold that; set it up by hand where it is needed.`,
		place
	};
}
