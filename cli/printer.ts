const indented = (value: unknown, depth: number) =>
	JSON.stringify(value, null, '\t').replace(/\n/g, `\n${'\t'.repeat(depth)}`);

/** Prints one JSON object whose middle is a long list, an entry at a time, as it would be printed whole. */
export class Printer {
	#entries = 0;

	readonly #write: (text: string) => void;

	/** `write` takes what is printed. */
	constructor(write: (text: string) => void = (text) => process.stdout.write(text)) {
		this.#write = write;
	}

	#fields(fields: object): string {
		return Object.entries(fields)
			.map(([name, value]) => `\t${JSON.stringify(name)}: ${indented(value, 1)}`)
			.join(',\n');
	}

	/** Begins the object with what stands in front of the list, which is called `name`. */
	open(fields: object, name: string): void {
		const before = this.#fields(fields);
		this.#write(`{\n${before}${before ? ',\n' : ''}\t${JSON.stringify(name)}: [`);
	}

	/** Prints the next entry of the list. */
	entry(value: unknown): void {
		this.#write(`${this.#entries ? ',' : ''}\n\t\t${indented(value, 2)}`);
		this.#entries += 1;
	}

	/** Ends the list, and the object with what stands behind it. */
	close(fields: object): void {
		const after = this.#fields(fields);
		this.#write(`${this.#entries ? '\n\t' : ''}]${after ? `,\n${after}` : ''}\n}\n`);
	}
}
