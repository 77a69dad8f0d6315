/** A trouble that a person can mend; it is said in a line, without a trace of the program's insides. */
export class Trouble extends Error {}

/** What was being done was stopped by whoever runs it. */
export class Stopped extends Trouble {
	constructor() {
		super('Stopped before it was ready. Nothing is half done that the next start does not put right.');
	}
}

/** Says a line about what is being done. */
export function say(line: string): void {
	process.stdout.write(`${line}\n`);
}

/** Turns what the system says of a failed step into a Trouble, where a person can do something about it. */
export function asTrouble(error: unknown, doing: string): Error {
	const { code, message, path } = error as NodeJS.ErrnoException;
	const where = path ? ` (${path})` : '';
	if (code === 'ENOSPC' || code === 'EDQUOT' || /no space left|disk is full|disk quota/i.test(message))
		return new Trouble(`The disk is full while ${doing}${where}. Make room and start again; nothing is lost.`);
	if (code === 'EROFS' || /read-only file system/i.test(message))
		return new Trouble(`The disk can only be read while ${doing}${where}. Mount it for writing and start again.`);
	if (code === 'EACCES' || code === 'EPERM' || /permission denied/i.test(message))
		return new Trouble(
			`There is no right to write while ${doing}${where}. Run this as the owner of this folder, or give that right.`
		);
	if (code === 'ENOTDIR' || code === 'EEXIST')
		return new Trouble(
			`There is a file where a folder has to be${where}. The data go into a folder “var” beside this program: move that file away and start again.`
		);
	return error as Error;
}
