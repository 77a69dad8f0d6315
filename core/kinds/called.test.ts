import { describe, expect, it } from 'vitest';
import { essay } from '../test-support/questions';
import { called } from './called';

describe('what a question is called', () => {
	it('is its title', () => {
		expect(called(essay({ title: 'Warps', stem: 'Describe a warp.' }))).toBe('Warps');
	});
	it('is the start of its stem where it has no title', () => {
		expect(called(essay({ title: '', stem: '<p>Describe <b>a warp</b>.</p>' }))).toBe('Describe a warp.');
		expect(called(essay({ title: '', stem: 'word '.repeat(100) })).length).toBeLessThanOrEqual(81);
	});
	it('is its kind where a stem has no words', () => {
		expect(called(essay({ title: '', stem: '<img src="media:a.png" alt=""/>' }))).toBe('Essay');
	});
});
