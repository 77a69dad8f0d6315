import { markupOfNodes, type CleanContext } from '../../markup/clean';
import type { Markup, QuestionCommon } from '../../model/question';
import { childrenOf, descendants, type XmlElement } from '../../xml/tree';
import type { Value } from './process';

/** An answer that was tried, and the outcomes that it came to. */
export interface Answer {
	outcomes: Map<string, Value>;
	full: boolean;
	/** The place of the one option that it ticks, where it is a choice. */
	option: number | null;
}

const joined = (before: Markup | undefined, markup: Markup) => (before ? `${before}${before.startsWith('<') ? '' : ' '}${markup}` : markup);

/**
 * Puts the modal feedback of an item, and the feedback in its body, where it belongs, by the answers that show it
 * (QTI 2.1 information model, section 9). Gives what belongs to single options by their place.
 */
export function placeFeedback2(item: XmlElement, question: QuestionCommon, answers: Answer[], cleaning: CleanContext): Map<number, Markup> {
	const ofOptions = new Map<number, Markup>();
	const body = childrenOf(item, 'itemBody').flatMap((one) => descendants(one, 'feedbackBlock', 'feedbackInline')).filter((node) => !descendants(item, 'simpleChoice').some((choice) => descendants(choice, node.name).includes(node)));
	for (const node of [...childrenOf(item, 'modalFeedback'), ...body]) {
		const markup = markupOfNodes(node.children, cleaning);
		if (!markup) continue;
		const outcome = node.attributes.outcomeIdentifier ?? '';
		const hides = node.attributes.showHide === 'hide';
		const shown = answers.filter((answer) => (answer.outcomes.get(outcome) ?? []).includes(node.attributes.identifier ?? '') !== hides);
		const { feedback } = question;
		if (shown.length === answers.length) feedback.general = joined(feedback.general, markup);
		else if (!shown.length) question.metadata.push({ name: `feedback ${node.attributes.identifier ?? ''}`, value: markup });
		else if (shown.every((answer) => answer.full) && shown.length === answers.filter((answer) => answer.full).length && feedback.correct === undefined && !/^OPTION/.test(node.attributes.identifier ?? '')) feedback.correct = markup;
		else if (shown.every((answer) => !answer.full) && shown.length === answers.filter((answer) => !answer.full).length && feedback.incorrect === undefined) feedback.incorrect = markup;
		else if (shown.length === 1 && shown[0]!.option !== null) ofOptions.set(shown[0]!.option, joined(ofOptions.get(shown[0]!.option), markup));
		else if (shown.every((answer) => !answer.full)) feedback.incorrect = joined(feedback.incorrect, markup);
		else feedback.general = joined(feedback.general, markup);
	}
	return ofOptions;
}
