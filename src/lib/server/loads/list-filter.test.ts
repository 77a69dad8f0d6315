import { describe, expect, it } from 'vitest';
import { object } from 'yup';
import { chosenFields, chosenIn, listIn } from './list-filter';
import { wholeLoad } from './listed';

const sent = (body: unknown) => chosenIn(object(chosenFields).validateSync(body));

describe('the questions that are chosen', () => {
	it('are those that are named, and never all because no filter was sent', () => {
		expect(sent({ ids: [3, 4] })).toEqual({ ids: [3, 4] });
		expect(sent({ ids: [] })).toEqual({ ids: [] });
		expect(sent({})).toBeNull();
		expect(sent({ filter: null })).toBeNull();
	});
	it('are all that a filter lists, but for some', () => {
		expect(sent({ filter: { rule: 'no-key' }, except: [7] })).toEqual({
			filter: { ...wholeLoad, rule: 'no-key' },
			except: [7]
		});
	});
	it('are refused where they are none', () => {
		for (const wrong of [{ ids: ['a'] }, { ids: [0] }, { filter: { match: 'perhaps' } }, { filter: 7 }])
			expect(() => sent(wrong)).toThrow();
	});
});

describe('the list that an address asks for', () => {
	it('is everything in the order of the file where it says nothing', () => {
		expect(listIn(new URL('http://localhost/rows'))).toEqual({ filter: wholeLoad, order: 'file' });
		expect(listIn(new URL('http://localhost/rows?order=name&category='))).toEqual({
			filter: { ...wholeLoad, category: '' },
			order: 'file'
		});
	});
});
