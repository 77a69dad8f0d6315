/** Work that takes longer and was asked for on this page: how far it is, and the way to stop it. */
export class UnderWay {
	done = $state(0);
	/** 0 where it is not known. */
	total = $state(0);
	readonly stop: () => void;

	constructor(stop: () => void) {
		this.stop = stop;
	}

	/** Shows work at the foot of the window until it ends. */
	static begin(stop: () => void): UnderWay {
		const work = new UnderWay(stop);
		all.push(work);
		return work;
	}
	/** Says how far it is. */
	is({ done, total }: { done: number; total: number }): void {
		this.done = done;
		this.total = total;
	}
	/** Takes it from the window. */
	end(): void {
		all.splice(all.indexOf(this), 1);
	}
}

/** All that is under way. */
export const all = $state<UnderWay[]>([]);

/** How many sheets are open: what is under way is shown in them then, for nothing else on the page can be reached. */
export const sheets = $state({ open: 0 });
