import { describe, expect, it } from 'vitest';
import { bulkSheets, nothingFilled, type BulkDeed } from './bulk-sheets';

const chosen = { bankId: 1, categoryId: null, withUnder: true, words: '', filters: {}, ids: [1, 2], except: [] };
const asked = (deed: BulkDeed, filled: Partial<ReturnType<typeof nothingFilled>>) =>
	bulkSheets[deed].asked({ ...nothingFilled(), ...filled }, chosen);

describe('the sheets for many questions', () => {
	it('ask for nothing while what they need is missing', () => {
		for (const deed of ['move', 'copy', 'points', 'tags', 'replace'] as const) expect(asked(deed, {}), deed).toBeNull();
		expect(asked('points', { text: 'two' })).toBeNull();
	});
	it('take points with a comma or a point', () => {
		for (const text of ['2,5', ' 2.5 '])
			expect(asked('points', { text })).toEqual({ do: 'edit', chosen, what: { edit: 'points', points: 2.5 } });
	});
	it('say where questions go', () => {
		expect(asked('copy', { to: { bankId: 7, categoryId: null } })).toEqual({
			do: 'copy',
			chosen,
			to: { bankId: 7, categoryId: null }
		});
	});
	it('put nothing in the place of words, where nothing is written', () => {
		expect(asked('replace', { text: 'Select one:' })).toEqual({
			do: 'edit',
			chosen,
			what: { edit: 'replace', find: 'Select one:', put: '', exactCase: false, wholeWords: true }
		});
	});
	it('take a difficulty or language away by an empty field', () => {
		expect(asked('difficulty', {})).toEqual({ do: 'edit', chosen, what: { edit: 'difficulty', difficulty: '' } });
	});
});
