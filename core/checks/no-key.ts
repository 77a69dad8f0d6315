import { bestCredit } from '../scoring/score';
import { kindOf } from '../kinds';
import type { OneCheck } from './check';

/** Nothing is marked as right. */
export const noKey: OneCheck = {
	id: 'no-key',
	version: 2,
	scope: 'one',
	title: 'No key',
	short: 'no key',
	severity: 'broken',
	why: 'Nothing is marked as the right answer, so every student would get no points, whatever they answer.',
	find(question) {
		// one blank without a key among good ones leaves the credit short, which is said of it
		if (question.kind === 'fill-blanks' && ((bestCredit(question) ?? 0) > 0 || isForPerson(question))) return [];
		const message = kindOf(question).keyless(question);
		return message === null ? [] : [{ message }];
	}
};

/** Whether a person marks some blank, so that something can be earned. */
const isForPerson = ({ blanks }: { blanks: { form: string }[] }) => blanks.some(({ form }) => form === 'open');
