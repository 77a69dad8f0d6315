import { fold } from '../../markup/text';

/** A category path out of a text, by the first of some separators that stands in it. */
export function categoryOf(text: string, separators: string[]): string[] {
	const plain = fold(text);
	if (!plain) return [];
	let parts = [plain];
	for (const separator of separators) parts = parts.flatMap((part) => part.split(separator));
	return parts.map((part) => part.trim()).filter(Boolean);
}

/** The entries of a list with commas or semicolons between them. */
export function listOf(text: string): string[] {
	return [
		...new Set(
			text
				.split(/\s*[,;]\s*/)
				.map((one) => fold(one).replace(/^#(?=\w)/, ''))
				.filter(Boolean)
		)
	];
}
