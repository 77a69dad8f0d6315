import type { Markup } from '../model/question';
import { calculated } from './calculated';
import type { ChoiceQuestion } from './choice';
import { mapCommon } from './common';
import { essay } from './essay';
import { fileUpload } from './file-upload';
import { fillBlanks } from './fill-blanks';
import { hotspot } from './hotspot';
import { information } from './information';
import type { ChangeMarkup, KindOf } from './kind';
import { labelImage } from './label-image';
import { matching } from './matching';
import { multipleChoice } from './multiple-choice';
import { multipleResponse } from './multiple-response';
import { numeric } from './numeric';
import { ordering } from './ordering';
import { shortAnswer } from './short-answer';
import { trueFalse } from './true-false';
import { unreadable } from './unreadable';

/** All kinds of question, in the order in which they are listed. A new kind is a new file and one line here. */
const register = {
	'true-false': trueFalse,
	'multiple-choice': multipleChoice,
	'multiple-response': multipleResponse,
	'short-answer': shortAnswer,
	numeric,
	'fill-blanks': fillBlanks,
	matching,
	ordering,
	essay,
	'file-upload': fileUpload,
	hotspot,
	'label-image': labelImage,
	calculated,
	information,
	unreadable
};

/** One kind of question. */
export type Kind = keyof typeof register;

/** A question of any kind. */
export type Question = { [Of in Kind]: (typeof register)[Of] extends KindOf<infer Its, infer _> ? Its : never }[Kind];

/** The kinds of question that the model holds. */
export const kinds = Object.keys(register) as Kind[];

/** All that is known of the kind of a question. */
export function kindOf<Of extends Question>(question: Of): KindOf<Of, Question> {
	return register[question.kind] as unknown as KindOf<Of, Question>;
}

/** All that is known of a kind, for what does not ask about one question. */
export function kindNamed(kind: Kind): Pick<KindOf<Question>, 'name' | 'fields' | 'marks'> {
	return register[kind];
}

/** The name of a kind for people. */
export function kindName(kind: Kind): string {
	return register[kind].name;
}

/** Whether the answer is one or several of the options. */
export function isChoice(question: Question): question is ChoiceQuestion {
	return 'options' in question;
}

/**
 * The same question with each of its rich texts put through a function, in the order in which a student meets them.
 * The parts that hold no rich text are shared with the question that was given.
 */
export function mapMarkup<Of extends Question>(question: Of, change: ChangeMarkup): Of {
	return mapCommon(question, change, (same) => kindOf(same).rich(same, change));
}

/** Every rich text of a question with the name of its field for people. */
export function markupOf(question: Question): { field: string; markup: Markup }[] {
	const found: { field: string; markup: Markup }[] = [];
	mapMarkup(question, (markup, field) => {
		found.push({ field, markup });
		return markup;
	});
	return found;
}

export type { CalculatedQuestion, Variable } from './calculated/fields';
export type { ChoiceQuestion } from './choice';
export type { EssayQuestion } from './essay';
export type { FileUploadQuestion } from './file-upload';
export type { Blank, FillBlanksQuestion, ListEntry } from './fill-blanks';
export type { HotspotQuestion } from './hotspot';

export type { LabelImageQuestion } from './label-image';
export type { MatchingQuestion } from './matching';
export type { NumericQuestion } from './numeric';
export type { OrderingQuestion } from './ordering';
export type { ShortAnswerQuestion } from './short-answer';
export type { UnreadableQuestion } from './unreadable';
