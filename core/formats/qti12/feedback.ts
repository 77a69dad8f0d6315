import type { CleanContext } from '../../markup/clean';
import type { Markup, QuestionCommon } from '../../model/question';
import { childOf, childrenOf, descendants, trimmed, type XmlElement } from '../../xml/tree';
import { joinBlocks, materialBelow } from './material';
import { conditionTest, type Cardinalities, type Responses } from './process';

/** An answer that is tried on the conditions, and whether it earns all the points. */
export interface Trial {
	responses: Responses;
	full: boolean;
	/** The place of the one option that it ticks, where it is a choice. */
	option: number | null;
}

const setsPoints = (condition: XmlElement) => childrenOf(condition, 'setvar').some((set) => Number(trimmed(set)) > 0);

/**
 * Puts each feedback of an item where it belongs, by trying which answers show it: always, when right, when wrong,
 * or with one option. Gives the feedback of the options by their place.
 */
export function placeFeedback(
	item: XmlElement,
	question: QuestionCommon,
	trials: Trial[],
	context: CleanContext,
	cardinalities: Cardinalities = new Map()
): Map<number, Markup> {
	const texts = new Map<string, { markup: Markup; hint: boolean; solution: boolean }>();
	for (const node of childrenOf(item, 'itemfeedback'))
		texts.set(node.attributes.ident ?? '', {
			markup: joinBlocks(materialBelow(node, context)),
			hint: descendants(node, 'hint').length > 0,
			solution: descendants(node, 'solution').length > 0
		});
	const ofOptions = new Map<number, Markup>();
	const conditions = childrenOf(childOf(item, 'resprocessing') ?? item, 'respcondition');
	if (!texts.size) return ofOptions;
	const matched = conditions.map((condition) => {
		try {
			const test = conditionTest(condition, cardinalities);
			return trials.filter((trial) => test(trial.responses));
		} catch {
			return [];
		}
	});
	const shows = (condition: XmlElement) => childrenOf(condition, 'displayfeedback').length > 0;
	const eachOwn =
		conditions.filter(
			(condition, at) =>
				shows(condition) &&
				childOf(condition, 'setvar') &&
				matched[at]!.length === 1 &&
				matched[at]![0]!.option !== null &&
				!matched[at]![0]!.full
		).length > 0;
	conditions.forEach((condition, at) => {
		const hit = matched[at]!;
		const isOther = childOf(childOf(condition, 'conditionvar'), 'other') !== undefined;
		for (const shown of childrenOf(condition, 'displayfeedback')) {
			const ident = shown.attributes.linkrefid ?? '';
			const text = texts.get(ident);
			if (!text?.markup) continue;
			texts.delete(ident);
			// of several to be ticked, an option shows by itself and among all that are right
			const single = hit.filter((trial) => trial.option !== null);
			const only = single.length === 1 && hit.length <= 2 ? single[0]! : hit.length === 1 ? hit[0]! : null;
			if (text.hint || /^hint$/i.test(shown.attributes.feedbacktype ?? '')) question.hints.push(text.markup);
			else if (text.solution || /^solution$/i.test(shown.attributes.feedbacktype ?? ''))
				question.feedback.general = joinBlocks([question.feedback.general ?? '', text.markup]);
			else if (ident === 'correct' || ident === 'incorrect' || ident === 'partly' || ident === 'general')
				question.feedback[ident] = text.markup;
			else if (ident === 'correct_fb') question.feedback.correct = text.markup;
			else if (ident === 'general_incorrect_fb') question.feedback.incorrect = text.markup;
			else if (
				ident === 'general_fb' ||
				(isOther && /^yes$/i.test(condition.attributes.continue ?? '') && !childrenOf(condition, 'setvar').length)
			)
				question.feedback.general = text.markup;
			else if (isOther) question.feedback.incorrect = text.markup;
			else if (only && only.option !== null && (!only.full || !setsPoints(condition) || eachOwn))
				ofOptions.set(only.option, joinBlocks([ofOptions.get(only.option) ?? '', text.markup]));
			else if (hit.length && hit.every((trial) => trial.full)) question.feedback.correct ??= text.markup;
			else if (hit.length && hit.every((trial) => !trial.full)) question.feedback.incorrect ??= text.markup;
			else if (setsPoints(condition)) question.feedback.partly ??= text.markup;
			else question.feedback.general = joinBlocks([question.feedback.general ?? '', text.markup]);
		}
	});
	// feedback that nothing shows is not thrown away: it is kept beside the question
	for (const [ident, text] of texts) {
		if (!text.markup) continue;
		if (text.hint) question.hints.push(text.markup);
		else if (text.solution) question.feedback.general = joinBlocks([question.feedback.general ?? '', text.markup]);
		else question.metadata.push({ name: `feedback ${ident}`, value: text.markup });
	}
	return ofOptions;
}
