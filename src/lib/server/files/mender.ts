import type { Pool } from 'mysql2/promise';
import type { OneCheck } from '$core/checks/check';
import { mendTools } from '$core/formats/mend-tools';
import type { Question } from '$core/kinds';
import { GrantedFiles, type Wishing } from './granted';

/** What mends questions by a check, of a course or of a load. */
export interface Mender {
	/** Has ready what is asked for beside some questions. */
	prepare?: (questions: readonly Wishing[]) => Promise<void>;
	/** Gives the mended question, by its key: the same one where nothing is to be changed. */
	apply: (id: number, question: Question) => Question;
}

/** The mend of a check over one question, with the files that it asks for; these are stored where it is not `planned`. */
export function menderOfOne(pool: Pool, mend: NonNullable<OneCheck['mend']>, planned: boolean): Mender {
	if (!mend.wishes) return { apply: (_, question) => mend.apply(question, mendTools) };
	const files = new GrantedFiles(pool, mend, planned);
	return {
		prepare: (questions) => files.prepare(questions),
		apply: (id, question) => mend.apply(question, files.toolsFor(id))
	};
}
