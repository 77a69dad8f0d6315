import type { ObjectShape } from 'yup';
import type { Question } from '../kinds';

/** Something that is done to many questions at once: a file in this folder, and a line in its register. */
export interface Edit<What> {
	/** What it needs to know, as Yup has it. */
	fields: ObjectShape;
	/** The deed for the ledger: “set the points of”. */
	deed: string;
	/** What it does, for the ledger and the button: “2 points”. */
	says: (what: What) => string;
	/** The question as it is then; the same object where there is nothing to do. */
	apply: (question: Question, what: What) => Question;
	/** It leaves the key as it is, so that a key that was verified is verified still. */
	keepsKey: boolean;
}
