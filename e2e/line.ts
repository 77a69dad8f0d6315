import { createServer, connect, type Server, type Socket } from 'node:net';

/** A line between a browser and the application, which a test can cut, mend and make slow. */
export class Line {
	readonly #ends = new Set<Socket>();
	readonly #server: Server;
	readonly #to: URL;
	#cut = false;
	/** Bytes a second from the browser to the application; 0 for as fast as it goes. */
	speed = 0;

	private constructor(to: URL) {
		this.#to = to;
		this.#server = createServer((near) => this.#join(near));
	}

	/** Opens a line to an application at an address. */
	static async to(address: string): Promise<Line> {
		const line = new Line(new URL(address));
		await new Promise<void>((resolve) => line.#server.listen(0, '127.0.0.1', resolve));
		return line;
	}

	/** The address at this end. */
	get address(): string {
		return `http://127.0.0.1:${(this.#server.address() as { port: number }).port}`;
	}

	#join(near: Socket): void {
		if (this.#cut) {
			near.destroy();
			return;
		}
		const far = connect(Number(this.#to.port), this.#to.hostname);
		for (const end of [near, far]) {
			this.#ends.add(end);
			const other = end === near ? far : near;
			end.on('close', () => {
				this.#ends.delete(end);
				other.destroy();
			});
			end.on('error', () => end.destroy());
		}
		far.pipe(near);
		near.on('data', (piece: Buffer) => {
			far.write(piece);
			if (!this.speed) return;
			near.pause();
			setTimeout(() => near.resume(), (piece.length / this.speed) * 1000);
		});
	}

	/** Breaks every connection, and refuses new ones. */
	cut(): void {
		this.#cut = true;
		for (const end of this.#ends) end.destroy();
	}

	/** Lets connections through again. */
	mend(): void {
		this.#cut = false;
	}

	/** Takes the line down. */
	async close(): Promise<void> {
		this.cut();
		await new Promise((resolve) => this.#server.close(resolve));
	}
}
