/** A number as people type it, with a comma or a point before its decimals; NaN where it is none, or may be two things. */
export function typedNumber(text: string): number {
	const trimmed = text.trim().replace(/^[\u2212\u2013]/, '-');
	return /^[+-]?(?:\d+(?:[.,]\d*)?|[.,]\d+)$/.test(trimmed) ? Number(trimmed.replace(',', '.')) : NaN;
}

/**
 * Numbers as people type them one after the other: parted by semicolons or blanks, or by commas with a blank behind them.
 * What is no number is NaN, also “50,25”, which may be one or two.
 */
export function typedNumbers(text: string): number[] {
	const isParted = text.includes(';');
	return text
		.split(isParted ? /[\s;]+/ : /\s*,\s+|\s+/)
		.map((part) => part.replace(/%$/, '').replace(isParted ? '' : /,$/, ''))
		.filter(Boolean)
		.map((part) => (!isParted && part.includes(',') ? NaN : typedNumber(part)));
}
