import type { QuestionCommon } from '../model/question';
import type { KindOf } from './kind';
import { unmarked } from './unmarked';

/** Text or a picture without a response. */
export type InformationQuestion = { kind: 'information' } & QuestionCommon;

/** Text or a picture without a response. */
export const information: KindOf<InformationQuestion> = {
	...unmarked('nobody', 'There is nothing to answer here.'),
	name: 'Information',
	fields: {}
};
