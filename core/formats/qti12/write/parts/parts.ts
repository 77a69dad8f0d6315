import type { Markup } from '../../../../model/question';
import { escapeAttribute } from '../../../../xml/serialise';
import { material } from '../html';

/** The address of a file in the package, by its name. */
export type Address = (name: string) => string;

/** What depends on the kind: the presentation, the conditions that give points, and the test of a right answer. */
export interface Parts {
	presentation: string;
	points: string[];
	/** The test that holds for a right answer; empty where there is none. */
	right: string;
	/** Conditions that show what belongs to single options. */
	shown?: string[];
	feedback?: { ident: string; markup: Markup }[];
}

/** A list with what earns the most first. */
export const byCredit = <T extends { credit: number }>(list: T[]) => [...list].sort((a, b) => b.credit - a.credit);
/** Whether something is shuffled, as an attribute; nothing where it is not said. */
export const yesNo = (value: boolean | null) => (value === null ? '' : ` shuffle="${value ? 'Yes' : 'No'}"`);

/** Identifiers of one list, each once. */
export function names(list: { identifier: string }[], letter: string): string[] {
	const seen = new Set<string>();
	return list.map((named, at) => {
		let name =
			named.identifier.trim() === named.identifier && named.identifier ? named.identifier : `${letter}${at + 1}`;
		while (seen.has(name)) name = `${name}_${at + 1}`;
		seen.add(name);
		return name;
	});
}

/** A label of a response, around what it shows. */
export const label = (ident: string, inner: string, more = '') =>
	`<response_label ident="${escapeAttribute(ident)}"${more}>${inner}</response_label>`;
/** The stem as material; nothing where there is none. */
export const stemOf = (stem: Markup, address: Address) => (stem ? material(stem, address) : '');

/** A field to write in. */
export const fib = (type: string, rows = 1) =>
	`<render_fib fibtype="${type}" prompt="Box" rows="${rows}" columns="${rows > 1 ? 60 : 30}"/>`;
