import { existsSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { say, Trouble } from '../words';

/** How long a database is given to end by itself, in milliseconds. */
const patience = 30_000;

const read = (path: string) => {
	try {
		return readFileSync(path, 'utf8');
	} catch {
		return '';
	}
};

/** When a process began, in ticks since the machine did; empty where there is no such process (proc(5), field 22 of stat). */
const beginningOf = (pid: number) => {
	const stat = read(`/proc/${pid}/stat`);
	return stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19] ?? '';
};

/** The processes of this machine that work on a data folder: a server, or the program that makes one. */
function processesOn(data: string): number[] {
	if (!existsSync('/proc/self/stat')) return [];
	const named = `--datadir=${data}`;
	return readdirSync('/proc')
		.filter((name) => /^\d+$/.test(name) && read(`/proc/${name}/cmdline`).split('\0').includes(named))
		.map(Number);
}

const signal = (pid: number, name: NodeJS.Signals) => {
	try {
		process.kill(pid, name);
	} catch {
		// it has ended by itself
	}
};

/** Ends what still works on a data folder whose owner is gone, such as a server that outlived it. */
export async function endLeftOvers(data: string): Promise<void> {
	let left = processesOn(data);
	if (!left.length) return;
	say('A database that an earlier run has left behind is ended first …');
	for (const pid of left) signal(pid, 'SIGTERM');
	for (const began = Date.now(); left.length; left = processesOn(data)) {
		if (Date.now() - began > patience) for (const pid of left) signal(pid, 'SIGKILL');
		await new Promise((resolve) => setTimeout(resolve, 100));
	}
}

/**
 * Makes this process the owner of a database by a file that names it. Throws a Trouble where another one that still runs
 * is its owner; one that is gone has left nothing that counts.
 */
export function own(file: string): void {
	const mine = `${process.pid} ${beginningOf(process.pid)}`;
	for (let attempt = 0; attempt < 5; attempt += 1) {
		try {
			writeFileSync(file, mine, { flag: 'wx', mode: 0o600 });
			return;
		} catch (error) {
			if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
		}
		const [pid, began] = read(file).split(' ');
		if (pid && Number(pid) !== process.pid && began && beginningOf(Number(pid)) === began)
			throw new Trouble(
				`Yarn Barrow runs from this folder already (process ${pid}). Stop that first, with Ctrl+C where it was started or with: kill ${pid}`
			);
		rmSync(file, { force: true });
	}
	throw new Trouble(`“${file}” changes all the time: several are started at once in this folder. Start one.`);
}
