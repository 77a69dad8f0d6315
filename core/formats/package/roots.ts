import type { Container } from '../../container/container';
import { Column } from '../../container/compact';
import { FileSet } from '../../container/file-list';
import { rootOf, type Document } from './documents';

/** Documents that items and tests refer to, and that are read with them. */
const helpers =
	/^(assessmentStimulus|assessmentSection|responseProcessing|qti-(assessment-stimulus|assessment-section|response-processing))$/;

/** An item that no manifest lists is known by its root element. */
export const itemRoot = /^(?:assessmentItem|qti-assessment-item)$/;

/** Whether a document is read with those that refer to it; a section only where there is a test that could. */
export const isHelper = (name: string | undefined, tests: boolean) =>
	name !== undefined && helpers.test(name) && (tests || !/section$/i.test(name));

/** The root element of a document; null where it has none. */
export type Root = Awaited<ReturnType<typeof rootOf>>;

/** The root elements of documents that are looked at before their turn. */
export class Roots {
	/** Files that are read with those that refer to them. */
	readonly helpers: FileSet;
	readonly #container: Container;
	/** The roots that were met, each once; the first two are none and unknown. */
	readonly #kinds: (Root | undefined)[] = [undefined, null];
	readonly #kind = new Column(Int32Array);

	constructor(container: Container) {
		this.#container = container;
		this.helpers = new FileSet(container.files);
	}

	/** Looks at a document; undefined where it cannot be had, which is said when its turn comes. */
	async look({ file: path, number }: Document): Promise<Root | undefined> {
		try {
			const root = await rootOf(this.#container, path);
			if (root && helpers.test(root.name)) this.helpers.add(path);
			let kind = this.#kinds.findIndex(
				(one) => one === root || (one && root && one.name === root.name && one.namespace === root.namespace)
			);
			if (kind < 0) kind = this.#kinds.push(root) - 1;
			this.#kind.set(number, kind);
			return root;
		} catch {
			return undefined;
		}
	}

	/** What was seen of a document; undefined where it was not looked at or could not be had. */
	get({ number }: Document): Root | undefined {
		return this.#kinds[this.#kind.at(number)];
	}
}
