import { awaitedAnswer } from './awaited-answer';
import { beforeQuestion, sectionLine } from './between';
import type { Construct } from './construct';
import { field } from './field';
import { flashCard } from './flash-card';
import { heading } from './heading';
import { keyListHeading, keyListInLine, keyListLine } from './key-list';
import { kindOfQuestion } from './kind-line';
import { option } from './option';
import { optionFeedback } from './option-feedback';
import { optionsBehindLabel, optionsLabel } from './options-label';
import { pair } from './pair';
import { question } from './question';
import { afterQuestion, boldHeading, newParagraph, paragraphBetween, runsOn } from './runs-on';
import { secondList } from './second-list';
import { separator } from './separator';
import { stemLabel } from './stem-label';
import { tickedLetter } from './ticked-letter';
import { trueOrFalse, truthOption } from './truth';

/** All that a line can be, in the order in which it is tried; the last takes any line. A new construct is a file and a line here. */
export const constructs: readonly Construct[] = [
	heading,
	separator,
	keyListHeading,
	keyListInLine,
	keyListLine,
	flashCard,
	stemLabel,
	awaitedAnswer,
	tickedLetter,
	option,
	secondList,
	question,
	field,
	beforeQuestion,
	sectionLine,
	optionFeedback,
	kindOfQuestion,
	truthOption,
	optionsLabel,
	optionsBehindLabel,
	trueOrFalse,
	pair,
	afterQuestion,
	boldHeading,
	newParagraph,
	paragraphBetween,
	runsOn
];
