import type { QuestionCommon } from '../model/question';
import type { KindOf } from './kind';
import { unmarked } from './unmarked';

/** A question answered at length, which a person marks. */
export type EssayQuestion = { kind: 'essay' } & QuestionCommon;

/** A question answered at length, which a person marks. */
export const essay: KindOf<EssayQuestion> = {
	...unmarked('person', 'A person has to mark this.'),
	name: 'Essay',
	fields: {}
};
