/** A number, or a letter with a mark, that stands before a name: “3. ”, “12) ”, “Chapter” stays. */
const numbered = /^\s*\d+(?:\.\d+)*\s*[.):–-]?\s+/;

/**
 * Names of one level with numbers before them in their order, all of one length, so that sorting by letters keeps the
 * order: of ten names “01 Theory” to “10 Pilotage”. A number that was there before goes.
 */
export function paddedNames(names: readonly string[]): string[] {
	const digits = String(names.length).length;
	return names.map((name, at) => `${String(at + 1).padStart(digits, '0')} ${name.replace(numbered, '')}`.slice(0, 255));
}

/**
 * The same names with as many figures in each number, counted from the beginning of each name, so that sorting by letters
 * is sorting by numbers: of “Week 2” and “Week 10” the first becomes “Week 02”. What has no number stays as it is.
 */
export function paddedNumbers(names: readonly string[]): string[] {
	const longest: number[] = [];
	for (const name of names)
		[...name.matchAll(/\d+/g)].forEach(([figures], at) => {
			longest[at] = Math.max(longest[at] ?? 0, figures.length);
		});
	return names.map((name) => {
		let at = 0;
		return name.replace(/\d+/g, (figures) => figures.padStart(longest[at++]!, '0')).slice(0, 255);
	});
}
