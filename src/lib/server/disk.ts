import { statfsSync } from 'node:fs';

/** How much room a disk has: enough to work with, little, or none. */
export type Room = 'enough' | 'less than 1 GB' | 'full';

const low = 2 ** 30;
const none = 64 * 2 ** 20;

/** The room on the disk of a folder. */
export function roomOn(folder: string): Room {
	const { bavail, bsize } = statfsSync(folder);
	const free = bavail * bsize;
	return free < none ? 'full' : free < low ? 'less than 1 GB' : 'enough';
}
