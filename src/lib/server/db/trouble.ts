import { roomOn } from '../disk';
import { isUnreachable } from './pool';

/** What is wrong with the database, with the status of HTTP that says so, in words for whoever is working with it. */
export interface DatabaseTrouble {
	status: 503 | 507;
	message: string;
}

const full = new Set(['ER_RECORD_FILE_FULL', 'ER_DISK_FULL']);
const readOnly = new Set([
	'ER_OPTION_PREVENTS_STATEMENT',
	'ER_CANT_EXECUTE_IN_READ_ONLY_TRANSACTION',
	'ER_READ_ONLY_MODE'
]);
const noSpace = /no space left|errcode: 28\b|disk full|disk is full|out of disk space/i;

/** What an error says of the state of the database; null where it says something else. */
export function troubleOf(cause: unknown): DatabaseTrouble | null {
	const { code = '', message = '' } = (cause ?? {}) as { code?: string; message?: string };
	const unreachable = isUnreachable(cause);
	// a database whose disk is full may end of it; an own one has its data on the disk of this process
	if (full.has(code) || noSpace.test(message) || (unreachable && roomOn(process.cwd()) === 'full'))
		return { status: 507, message: 'The disk of the database is full. Nothing was changed; make room and try again.' };
	if (readOnly.has(code))
		return {
			status: 503,
			message:
				'The database can only be read just now, so nothing was changed. Whoever runs it has to let it be written to.'
		};
	if (unreachable)
		return {
			status: 503,
			message:
				'The database does not answer just now. Nothing is half done; try again in a moment, and look first whether it was done already.'
		};
	return null;
}
