/** Says what is wrong with a sheet: where it is, as a path in its JSON, and what to do. */
export class WrongSheet extends Error {
	constructor(place: string, message: string) {
		super(place ? `${place}: ${message}` : message);
	}
}
