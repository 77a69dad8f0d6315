import type { DocumentContext, ReadEvent } from './format';

/** After so many questions of a file that is held whole, it is told how far they have come. */
export const toldEvery = 100;

/** How far a file has come that is held whole, by how many of its questions, or of its rows, are done. */
export function progressAt({ container, file }: DocumentContext, done: number, all: number): ReadEvent {
	const bytesTotal = container.size(file);
	return { type: 'progress', bytesRead: Math.floor((bytesTotal * done) / Math.max(1, all)), bytesTotal };
}
