import { markupOfNodes, type CleanContext } from '../../markup/clean';
import type { Markup, QuestionCommon } from '../../model/question';
import { childrenOf, descendants, type XmlElement } from '../../xml/tree';
import type { Value } from './values';

/** An answer that was tried, and the outcomes that it came to. */
export interface Answer {
	outcomes: Map<string, Value>;
	/** The share of the points that it earns. */
	credit: number;
	/** The place of the one option that it ticks, where it is a choice. */
	option: number | null;
}

const joined = (before: Markup | undefined, markup: Markup) =>
	before ? `${before}${before.startsWith('<') ? '' : ' '}${markup}` : markup;

/**
 * Puts the modal feedback of an item, and the feedback in its body, where it belongs, by the answers that show it
 * (QTI 2.1 information model, section 9). Gives what belongs to single options by their place.
 */
export function placeFeedback2(
	item: XmlElement,
	question: QuestionCommon,
	answers: Answer[],
	cleaning: CleanContext
): Map<number, Markup> {
	const ofOptions = new Map<number, Markup>();
	const body = childrenOf(item, 'itemBody')
		.flatMap((one) => descendants(one, 'feedbackBlock', 'feedbackInline'))
		.filter(
			(node) => !descendants(item, 'simpleChoice').some((choice) => descendants(choice, node.name).includes(node))
		);
	for (const node of [...childrenOf(item, 'modalFeedback'), ...body]) {
		const markup = markupOfNodes(node.children, cleaning);
		if (!markup) continue;
		const outcome = node.attributes.outcomeIdentifier ?? '';
		const hides = node.attributes.showHide === 'hide';
		const shown = answers.filter(
			(answer) => (answer.outcomes.get(outcome) ?? []).includes(node.attributes.identifier ?? '') !== hides
		);
		const { feedback } = question;
		const name = node.attributes.identifier ?? '';
		const full = (answer: Answer) => answer.credit >= 1 - 1e-6;
		const all = (holds: (answer: Answer) => boolean) =>
			shown.every(holds) && shown.length === answers.filter(holds).length;
		const [only] = shown;
		if (name === 'correct' || name === 'incorrect' || name === 'partly' || name === 'general')
			feedback[name] = joined(feedback[name], markup);
		else if (shown.length === answers.length) feedback.general = joined(feedback.general, markup);
		else if (!shown.length) question.metadata.push({ name: `feedback ${name}`, value: markup });
		else if (all(full) && feedback.correct === undefined) feedback.correct = markup;
		else if (all((answer) => !full(answer)) && feedback.incorrect === undefined) feedback.incorrect = markup;
		else if (shown.length === 1 && only!.option !== null)
			ofOptions.set(only!.option, joined(ofOptions.get(only!.option), markup));
		else if (all((answer) => !full(answer) && answer.credit > 0)) feedback.partly = joined(feedback.partly, markup);
		else if (shown.every((answer) => !full(answer))) feedback.incorrect = joined(feedback.incorrect, markup);
		else feedback.general = joined(feedback.general, markup);
	}
	return ofOptions;
}
