import { describe, expect, it } from 'vitest';
import { percentOf } from './percent';
import { ago, bytes, count, figure, pathText, courseWords } from './words';

describe('words for people', () => {
	it.each([
		[0, '0 B'],
		[999, '999 B'],
		[1000, '1 kB'],
		[4_321_000, '4.3 MB'],
		[43_210_000, '43 MB'],
		[1_102_274_761, '1.1 GB']
	])('say %d bytes as “%s”', (size, words) => expect(bytes(size)).toBe(words));
	it('say a share in whole percent, on one line', () => {
		expect(percentOf(1 / 3)).toBe('33\u00a0%');
		expect(percentOf(-0.25)).toBe('−25\u00a0%');
	});
	it('count one thing as one, and put thousands apart', () => {
		expect(count(1, 'question')).toBe('1 question');
		expect(count(0, 'question')).toBe('0 questions');
		expect(count(12_345, 'category', 'categories')).toBe('12,345 categories');
		expect(figure(1050)).toBe('1,050');
	});
	it('say how long ago something was, and the day where it is longer ago than yesterday', () => {
		const now = Date.UTC(2027, 2, 18, 12);
		const before = (seconds: number) => ago(new Date(now - seconds * 1000), now);
		expect(before(20)).toBe('just now');
		expect(before(180)).toBe('3 minutes ago');
		expect(before(2 * 3600)).toBe('2 hours ago');
		expect(before(30 * 3600)).toBe('yesterday');
		expect(before(6 * 86_400)).toBe('Fri 12 Mar');
		expect(before(400 * 86_400)).toBe('11 Feb 2026');
	});
	it('name a path of categories, and the want of one', () => {
		expect(pathText(['Charts', 'Symbols'])).toBe('Charts › Symbols');
		expect(pathText([])).toBe('no category');
	});
});

describe('the name of a course', () => {
	const course = { id: 1, name: 'Tides and Charts', code: 'TC-S27', intake: 'spring intake' };
	it('has its code and intake where a wrong one could be meant', () => {
		expect(courseWords(course, [course, { id: 2, name: 'Rope Work' }])).toBe('Tides and Charts');
		expect(courseWords(course, [course, { id: 2, name: 'tides and charts' }])).toBe(
			'Tides and Charts (TC-S27, spring intake)'
		);
		expect(courseWords({ ...course, intake: '' }, [{ id: 2, name: course.name }])).toBe('Tides and Charts (TC-S27)');
	});
});
