import { describe, expect, it } from 'vitest';
import { dayIn } from './days';

describe('a day that is typed', () => {
	it.each([
		['2027-03-02', '2027-03-02'],
		[' 2.3.2027 ', '2027-03-02'],
		['02.03.2027', '2027-03-02'],
		['2 Mar 2027', '2027-03-02'],
		['2 March 2027', '2027-03-02'],
		['29.2.2028', '2028-02-29']
	])('%s', (written, day) => expect(dayIn(written)).toBe(day));
	it.each(['', 'soon', '30.2.2027', '2027-13-01', '3/2/2027', '2.3.27', '20270302'])('“%s” is none', (written) =>
		expect(dayIn(written)).toBeNull()
	);
});
