import type { XmlFault } from './events';
import { Run } from './run';
import type { XmlElement } from './tree';

/** The run that read the last small document, where it ended well. */
let spare: Run | null = null;

/**
 * Reads a whole small document. Gives its root, or what is wrong with it.
 * An HTML entity that the file does not declare is a warning, not a fault.
 */
export function parseXml(text: string): {
	root: XmlElement | null;
	warnings: XmlFault[];
	fault: XmlFault | null;
} {
	// making a parser ready costs about as much as reading a short document with it
	const run = spare ?? new Run({ collect: () => true, withoutSource: true }, [], 0);
	spare = null;
	run.write(text, true);
	if (!run.fault) run.end();
	const warnings: XmlFault[] = [];
	let root: XmlElement | null = null;
	for (const event of run.events) {
		if (event.type === 'fault') warnings.push(event);
		else if (event.type === 'element') root ??= event.element;
	}
	if (!run.fault) {
		run.renew();
		spare = run;
	}
	return { root: run.fault ? null : root, warnings, fault: run.fault };
}
