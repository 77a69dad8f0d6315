/** Somebody asked for the work to stop. */
export class Stopped extends Error {}

/** How a piece of work is told to stop, checked between its steps. */
export interface Control {
	/** Throws Stopped where a stop was asked for. */
	check: () => void;
}

/** A control that lets the work run. */
export const unhindered: Control = { check: () => undefined };
