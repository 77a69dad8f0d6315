/** A trouble that a person can mend; it is said in a line, without a trace of the program's insides. */
export class Trouble extends Error {}

/** Says a line about what is being done. */
export function say(line: string): void {
	process.stdout.write(`${line}\n`);
}

/** Turns what the system says of a failed step into a Trouble, where a person can do something about it. */
export function asTrouble(error: unknown, doing: string): Error {
	const { code, message } = error as NodeJS.ErrnoException;
	if (code === 'ENOSPC' || /no space left|disk is full/i.test(message))
		return new Trouble(`The disk is full while ${doing}. Make room and start again; nothing is lost.`);
	if (code === 'EACCES' || code === 'EPERM')
		return new Trouble(`There is no right to write while ${doing}. Run this as the owner of this folder.`);
	return error as Error;
}
