import { lookup } from '$core/model/lookup';
import { zipSync } from 'fflate';
import { getContext, setContext } from 'svelte';

/** A file on its way to the tray. */
export interface Sending {
	key: number;
	/** The course that it is sent to. */
	course: { id: number; name: string };
	name: string;
	size: number;
	sent: number;
	/** Whether the last piece is on its way, after which the file is put away. */
	ending: boolean;
	/** Sending, waiting for the connection to come back, or ended by what `failure` says. */
	state: 'sending' | 'waiting' | 'failed';
	failure: string;
}

const pieceSize = 4 * 2 ** 20;
const longestWait = 10_000;

/**
 * Sends files a piece at a time. Where the connection is lost, it waits and goes on where the server says that it has
 * come to, also after the page was opened again and the same file dropped.
 */
export class Uploads {
	list = $state<Sending[]>([]);
	#next = 0;
	readonly #stopped = new Set<number>();

	constructor(
		readonly limit: number,
		readonly limitWords: string,
		/** Told when a file has arrived in full. */
		readonly arrived: () => Promise<void>
	) {}

	/** What is on its way to a course, or has failed there. */
	of(courseId: number): Sending[] {
		return this.list.filter((one) => one.course.id === courseId);
	}

	/** Sends files to a course, each for itself; `done` is told the key of the load that each has become. Gives the key of the last. */
	add(course: Sending['course'], files: Iterable<File>, done?: (loadId: number) => void): number {
		for (const file of files) {
			this.#next += 1;
			const failure =
				file.size > this.limit
					? `It is larger than ${this.limitWords}, which is the most that is taken here.`
					: file.size === 0
						? 'It is empty.'
						: '';
			this.list.push({
				key: this.#next,
				course: { id: course.id, name: course.name },
				name: file.name,
				size: file.size,
				sent: 0,
				ending: false,
				state: failure ? 'failed' : 'sending',
				failure
			});
			if (!failure) void this.#send(this.#next, file, `/courses/${course.id}/loads/upload`, done);
		}
		return this.#next;
	}

	/** Takes a file off the list; one that is still on its way is stopped. */
	clear(key: number): void {
		this.#stopped.add(key);
		this.list = this.list.filter((one) => one.key !== key);
	}

	#mine(key: number): Sending | undefined {
		return this.list.find((one) => one.key === key);
	}

	async #call(method: string, address: string, body?: BodyInit): Promise<{ id: number; received: number } | string> {
		const response = await fetch(address, {
			method,
			headers: {
				Accept: 'application/json',
				'Content-Type': typeof body === 'string' ? 'application/json' : 'application/octet-stream'
			},
			...(body === undefined ? {} : { body })
		});
		if (response.ok) return (await response.json()) as { id: number; received: number };
		// a server that is being started again answers so; it is waited for like a lost connection
		if ([502, 503, 504].includes(response.status)) throw new TypeError('not there');
		const answer = (await response.json().catch(() => ({}))) as { message?: string };
		return answer.message ?? 'The server could not take it. Drop the file again.';
	}

	async #send(key: number, file: File, address: string, done?: (loadId: number) => void): Promise<void> {
		let at: { id: number; received: number } | null = null;
		for (let wait = 500; ;) {
			if (this.#stopped.has(key)) {
				if (at) void fetch(`${address}?id=${at.id}`, { method: 'DELETE' }).catch(() => undefined);
				return;
			}
			const upload = this.#mine(key);
			if (!upload) return;
			try {
				upload.ending = at !== null && at.received + pieceSize >= file.size;
				const answer: { id: number; received: number } | string = at
					? await this.#call(
							'PUT',
							`${address}?id=${at.id}&offset=${at.received}`,
							file.slice(at.received, at.received + pieceSize)
						)
					: await this.#call(
							'POST',
							address,
							JSON.stringify({ name: file.name, size: file.size, mark: String(file.lastModified) })
						);
				if (typeof answer === 'string') {
					upload.state = 'failed';
					upload.failure = answer;
					return;
				}
				at = answer;
				upload.state = 'sending';
				upload.sent = answer.received;
				wait = 500;
				if (answer.received >= file.size) {
					this.list = this.list.filter((other) => other.key !== key);
					done?.(answer.id);
					await this.arrived();
					return;
				}
			} catch {
				// nothing of what has arrived is lost: what has come is asked again before going on
				upload.state = 'waiting';
				await new Promise((resolve) => setTimeout(resolve, wait));
				wait = Math.min(longestWait, wait * 2);
				at = null;
			}
		}
	}
}

const contextKey = Symbol('uploads');

/** Makes the uploads known to the pages of a course. */
export const setUploads = (uploads: Uploads) => setContext(contextKey, uploads);

/** The uploads that the pages of all courses share. */
export const getUploads = () => getContext<Uploads>(contextKey);

async function filesIn(entry: FileSystemEntry, path: string, out: Map<string, File>): Promise<void> {
	if (entry.isFile) {
		const file = await new Promise<File>((resolve, reject) => (entry as FileSystemFileEntry).file(resolve, reject));
		out.set(path + entry.name, file);
		return;
	}
	const reader = (entry as FileSystemDirectoryEntry).createReader();
	for (;;) {
		const some = await new Promise<FileSystemEntry[]>((resolve, reject) => reader.readEntries(resolve, reject));
		if (!some.length) return;
		for (const one of some) await filesIn(one, `${path}${entry.name}/`, out);
	}
}

/** Files of a folder as one package, with the name of the folder: `files` by their paths in it. */
export async function packed(name: string, files: Map<string, File>): Promise<File> {
	const bytes = lookup<Uint8Array>({});
	for (const [path, file] of files) bytes[path] = new Uint8Array(await file.arrayBuffer());
	return new File([zipSync(bytes, { level: 6 })], `${name}.zip`, {
		type: 'application/zip'
	});
}

/** What was dropped: files as they are, and each folder as one package. */
export async function dropped(transfer: DataTransfer): Promise<File[]> {
	const entries = [...transfer.items].map((item) => item.webkitGetAsEntry());
	const plain = [...transfer.files];
	const out: File[] = [];
	for (const [at, entry] of entries.entries()) {
		if (!entry?.isDirectory) {
			if (plain[at]) out.push(plain[at]);
			continue;
		}
		const found = new Map<string, File>();
		await filesIn(entry, '', found);
		const inside = new Map([...found].map(([path, file]) => [path.slice(entry.name.length + 1), file]));
		if (inside.size) out.push(await packed(entry.name, inside));
	}
	return out;
}
