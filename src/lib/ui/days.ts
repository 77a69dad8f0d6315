import { isMatch, lightFormat, parse } from 'date-fns';

const forms = ['yyyy-MM-dd', 'd.M.yyyy', 'd MMM yyyy', 'd MMMM yyyy'];

/** The day that was written, as 2027-03-02, or null where it is none: 2027-03-02, 2.3.2027, 2 Mar 2027. */
export function dayIn(written: string): string | null {
	const words = written.trim();
	const form = forms.find((format) => isMatch(words, format));
	if (!form) return null;
	const day = parse(words, form, new Date(2000, 0, 1));
	return day.getFullYear() < 1000 || day.getFullYear() > 9999 ? null : lightFormat(day, 'yyyy-MM-dd');
}
