import { format, isDateFormat, isPercentFormat } from 'numfmt';

/** Formats of numbers that are not spelled out in a workbook (ECMA-376 part 1, 18.8.30); dates and times are shown as ISO 8601 has them. */
const builtIn = new Map<number, string>([
	[1, '0'],
	[2, '0.00'],
	[3, '#,##0'],
	[4, '#,##0.00'],
	[9, '0%'],
	[10, '0.00%'],
	[11, '0.00E+00'],
	[12, '# ?/?'],
	[13, '# ??/??'],
	...[14, 15, 16, 17, 27, 28, 29, 30, 31, 36, 50, 51, 52, 53, 54, 57, 58].map((id): [number, string] => [
		id,
		'yyyy-mm-dd'
	]),
	[18, 'h:mm AM/PM'],
	[19, 'h:mm:ss AM/PM'],
	...[20, 32, 34, 55].map((id): [number, string] => [id, 'hh:mm']),
	...[21, 33, 35, 56].map((id): [number, string] => [id, 'hh:mm:ss']),
	[22, 'yyyy-mm-dd hh:mm'],
	[37, '#,##0;(#,##0)'],
	[38, '#,##0;(#,##0)'],
	[39, '#,##0.00;(#,##0.00)'],
	[40, '#,##0.00;(#,##0.00)'],
	[45, 'mm:ss'],
	[46, '[h]:mm:ss'],
	[47, 'mm:ss.0'],
	[48, '##0.0E+0']
]);

/** The code of a format by its number and what the workbook says of it; nothing where a number is shown as it is. */
export function formatCode(id: number, custom: string | undefined): string {
	const code = custom ?? builtIn.get(id) ?? '';
	return /^(general|@|standard)$/i.test(code.trim()) ? '' : code;
}

/** A number as it is shown where no format says how: at most 15 digits, as a workbook keeps them. */
export function plainNumber(number: number): string {
	return String(Number(number.toPrecision(15))).replace(
		/e([+-])(\d+)$/,
		(_, sign: string, digits: string) => `E${sign}${digits.padStart(2, '0')}`
	);
}

/** A number as a sheet shows it. */
export interface ShownNumber {
	text: string;
	/** It is shown as a date or a time. */
	isDate: boolean;
	/** It is shown as a number, and not as a share, a date or a time. */
	isNumber: boolean;
}

/** What a sheet shows of a number by the code of its format (18.8.31); days count from 1904 in some workbooks. */
export function shownNumber(number: number, code: string, from1904: boolean): ShownNumber {
	const plain: ShownNumber = { text: plainNumber(number), isDate: false, isNumber: true };
	if (!code) return plain;
	try {
		const isDate = isDateFormat(code);
		const shown = format(code, isDate && from1904 ? number + 1462 : number, { throws: true });
		const text = shown.replace(/\s+/g, ' ').trim();
		return text ? { text, isDate, isNumber: !isDate && !isPercentFormat(code) } : plain;
	} catch {
		// a code that is none, or a number that is no date
		return plain;
	}
}
