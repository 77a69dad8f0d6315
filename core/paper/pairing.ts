import type { Pair } from '../model/pieces';
import { letterAt, placesIn } from './letters';
import type { Typed } from './paper-kind';

interface Sided {
	identifier: string;
}

/** Pairs in words: “1 C, 2 A”; `numbered` and `lettered` are the identifiers of both sides in the order of the paper. */
export function pairsInWords(
	pairs: readonly Pair[],
	numbered: readonly string[],
	lettered: readonly string[],
	of: (pair: Pair) => [numbered: string, lettered: string]
): string {
	return numbered
		.flatMap((identifier, place) => {
			const right = pairs
				.filter((pair) => pair.credit > 0 && of(pair)[0] === identifier)
				.map((pair) => letterAt(lettered.indexOf(of(pair)[1])));
			return right.length ? [`${place + 1} ${right.sort().join(' or ')}`] : [];
		})
		.join(', ');
}

/** Pairs as they are typed: “1C 2A”, or the letters alone in the order of the numbers, with a dash for none. */
export function pairsTyped(
	typed: string,
	numbered: readonly Sided[],
	lettered: readonly Sided[],
	pairOf: (numbered: string, lettered: string) => [string, string]
): Typed {
	const wrong = {
		wrong: `“${typed}” is no list of pairs: write them as 1C 2A, or as letters in the order of the numbers, with a dash for none.`
	};
	const pairs: [string, string][] = [];
	const add = (number: number, letters: string): boolean => {
		const places = placesIn(letters, lettered.length);
		if (!places || number < 1 || number > numbered.length) return false;
		for (const place of places) pairs.push(pairOf(numbered[number - 1]!.identifier, lettered[place]!.identifier));
		return true;
	};
	if (/\d/.test(typed)) {
		const found = [...typed.matchAll(/(\d+)\s*[-–=:.)]?\s*([A-Za-z]+)/g)];
		const rest = typed.replace(/(\d+)\s*[-–=:.)]?\s*([A-Za-z]+)/g, '').replace(/[\s,;]/g, '');
		if (rest || !found.length) return wrong;
		return found.every(([, number, letters]) => add(Number(number), letters!)) ? { response: { pairs } } : wrong;
	}
	const letters = typed.replace(/[\s,;]/g, '');
	if (letters.length > numbered.length || !/^[A-Za-z–-]*$/.test(letters)) return wrong;
	return [...letters].every((letter, at) => /[–-]/.test(letter) || add(at + 1, letter))
		? { response: { pairs } }
		: wrong;
}
