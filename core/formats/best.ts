/** Things with the greatest worth first, those of the same in their order; the worth of each is asked for once. */
export function bestFirst<T>(things: readonly T[], worth: (thing: T) => number): T[] {
	return things
		.map((thing) => ({ thing, worth: worth(thing) }))
		.sort((a, b) => b.worth - a.worth)
		.map((one) => one.thing);
}
