/** The most that is read of a file by a recipe, which holds it whole: sizes in bytes, elements of XML, and values of JSON. */
export const recipeLimits = { bytes: 128 * 2 ** 20, elements: 150_000, values: 3_000_000 } as const;

const figure = (value: number) => value.toLocaleString('en');

/** How many times any of some signs stands in a text, up to one more than `most`. */
function countOf(text: string, signs: RegExp, most: number): number {
	let count = 0;
	signs.lastIndex = 0;
	while (count <= most && signs.test(text)) count += 1;
	return count;
}

/** Why a file of so many bytes is too large for a recipe, in a sentence; null where it is not. */
export function tooLargeForRecipe(file: string, bytes: number): string | null {
	return bytes > recipeLimits.bytes
		? `“${file}” is larger than ${recipeLimits.bytes / 2 ** 20} MB, which is too much for a file that is read by a recipe. Take it apart first.`
		: null;
}

/** Why a text has too many parts for a recipe, in a sentence; null where it has not. */
export function tooManyForRecipe(file: string, form: 'json' | 'xml', text: string): string | null {
	if (form === 'xml')
		return countOf(text, /<[^/!?]/g, recipeLimits.elements) > recipeLimits.elements
			? `“${file}” has more than ${figure(recipeLimits.elements)} elements, which is the most that is read by a recipe. Take it apart first.`
			: null;
	// signs in texts count as well, which are few beside those that part values
	return countOf(text, /[,[{]/g, recipeLimits.values) > recipeLimits.values
		? `“${file}” has more than ${figure(recipeLimits.values)} values, which is the most that is read by a recipe. Take it apart first.`
		: null;
}
