import { bounds } from '../model/bounds';
import { descendants, type XmlElement } from '../xml/tree';

/**
 * Why an item has more to choose from, or more answers, than can be worked with, in a sentence; null where it has not. It is
 * asked before anything is tried on the item, which takes its time. `choices` is the name of what is chosen from.
 */
export function tooManyParts(item: XmlElement, choices: string, ...answers: string[]): string | null {
	const figure = (count: number) => count.toLocaleString('en');
	const options = descendants(item, choices).length;
	// several lists in one item may have as many together as all its blanks may have
	if (options > bounds.options * 10 || (options > bounds.options && descendants(item, ...answers).length < 2))
		return `It has ${figure(options)} options, and ${figure(bounds.options)} is the most that one question can have here.`;
	const blanks = descendants(item, ...answers).length;
	return blanks > bounds.blanks
		? `It has ${figure(blanks)} blanks, and ${figure(bounds.blanks)} is the most that one question can have here.`
		: null;
}
