import { stimulus, hints, metadata, difficulty, tags, oddLanguage, language, category, title } from './common';
import { unsetPoints, pointsByPerson, noPoints } from './points';
import { generalFeedback, correctFeedback, incorrectFeedback, partlyFeedback, optionFeedback } from './feedback';
import { unsetShuffle, shuffle, pinned, listShuffle } from './shuffle';
import { oddTruth, lostKeys, partialCredit, oneKey, creditByOption } from './choices';
import { negativeCredit, keylessAll, unequalAll, bounds, openAll, unreachableAll, outside } from './credit';
import { capitals, loosePatterns, contains, patterns, textCredit } from './texts';
import {
	numberCredit,
	openRanges,
	whole,
	oddWhole,
	slider,
	unit,
	sliderUnit,
	floatSteps,
	hiddenDecimals
} from './numbers';
import { mixedBank, wordBank, richBank, richLists, loneOpenBlank, inlineOpenBlanks } from './blanks';
import { distractors, uses, textLabels, richLabels } from './pairs';
import { pictures, richText, lineBreaks } from './markup';
import type { Feature } from './feature';

export type { Feature };

/** Every feature, in the order in which a question is made to fit. A new one is an entry in the file of its subject, and one here. */
export const features: Feature[] = [
	stimulus,
	hints,
	metadata,
	difficulty,
	tags,
	oddLanguage,
	language,
	category,
	title,
	unsetPoints,
	pointsByPerson,
	noPoints,
	generalFeedback,
	correctFeedback,
	incorrectFeedback,
	partlyFeedback,
	optionFeedback,
	unsetShuffle,
	shuffle,
	oddTruth,
	pinned,
	lostKeys,
	negativeCredit,
	partialCredit,
	oneKey,
	creditByOption,
	keylessAll,
	unequalAll,
	bounds,
	capitals,
	loosePatterns,
	contains,
	patterns,
	textCredit,
	numberCredit,
	openRanges,
	whole,
	oddWhole,
	slider,
	unit,
	sliderUnit,
	mixedBank,
	wordBank,
	richBank,
	richLists,
	listShuffle,
	loneOpenBlank,
	inlineOpenBlanks,
	openAll,
	distractors,
	uses,
	textLabels,
	richLabels,
	unreachableAll,
	outside,
	floatSteps,
	hiddenDecimals,
	pictures,
	richText,
	lineBreaks
];
