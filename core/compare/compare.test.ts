import { describe, expect, it } from 'vitest';
import { choice, numeric, option, short } from '../test-support/questions';
import { canonicalForm, differences } from './canonical';
import { proofLine } from './proof';

const fields = (...pair: Parameters<typeof differences>) => differences(...pair).map((one) => one.field);
const kept = { outcome: 'kept' as const, what: [], fields: [], fitted: [] };

describe('differences between two questions', () => {
	it('are none for the same content under other names', () => {
		const other = choice({
			identifier: 'X-99',
			options: choice().options.map((one, at) => ({ ...one, identifier: `c${at}` })),
			source: { format: 'qti12', file: 'a', line: 1, endLine: 2, identifier: '' }
		});
		expect(differences(choice(), other)).toEqual([]);
	});
	it.each([
		['the stem', choice({ stem: 'Another?' }), ['stem']],
		['the points', choice({ points: 2 }), ['points']],
		['the title', choice({ title: 'Another' }), ['title']],
		[
			'an option',
			choice({ options: [option('A', 'Cirrus', 1), option('B', 'Nimbus', 0), option('C', 'Cumulus', 0)] }),
			['options']
		],
		[
			'the key',
			choice({ options: [option('A', 'Cirrus', 0), option('B', 'Stratus', 1), option('C', 'Cumulus', 0)] }),
			['options']
		],
		['the order of options', choice({ options: [...choice().options].reverse() }), ['options']],
		['shuffling', choice({ shuffle: null }), ['shuffle']],
		['the category', choice({ category: ['Clouds'] }), ['category']],
		['tags', choice({ tags: ['a'] }), ['tags']],
		['feedback', choice({ feedback: { general: 'x' } }), ['feedback']],
		[
			'a file',
			choice({ attachments: [{ name: 'a.png', mediaType: 'image/png', hash: null, missing: true }] }),
			['files']
		],
		['the kind', choice({ kind: 'true-false' }), ['kind']]
	])('name %s', (_, other, wanted) => {
		expect(fields(choice(), other)).toEqual(wanted);
	});
	it('hold a picture by its content, not by its name', () => {
		const hash = 'c'.repeat(64);
		const withPicture = (name: string) =>
			choice({
				stem: `<img src="media:${name}" alt=""/>`,
				attachments: [{ name, mediaType: 'image/png', hash, missing: false }]
			});
		expect(differences(withPicture('images/a.png'), withPicture('media/cccc-a.png'))).toEqual([]);
	});
	it('hold numbers by what they accept, not by how it is written', () => {
		const nested = numeric([
			{ value: 5, tolerance: 0.5, credit: 1 },
			{ min: 4, max: 6, includesMin: true, includesMax: true, credit: 0.5 }
		]);
		const doubled = numeric([...nested.accepted, { value: 5, tolerance: 0.25, credit: 1 }]);
		expect(differences(nested, doubled)).toEqual([]);
		expect(fields(nested, numeric([{ value: 5, tolerance: 0.5, credit: 1 }]))).toEqual(['accepted']);
	});
	it('see capitals that matter', () => {
		const loose = short([{ text: 'CD', credit: 1, caseSensitive: false }]);
		expect(fields(loose, short([{ text: 'CD', credit: 1, caseSensitive: true }]))).toEqual(['accepted']);
	});
});

describe('the canonical form', () => {
	it('is the same for the same question under another title and with other points', () => {
		expect(canonicalForm(choice({ title: 'Other', points: 9 }))).toBe(canonicalForm(choice()));
	});
	it('is another for another key', () => {
		expect(canonicalForm(choice({ options: [option('A', 'Cirrus', 0), option('B', 'Stratus', 1)] }))).not.toBe(
			canonicalForm(choice())
		);
	});
});

describe('a line of a proof', () => {
	it.each([
		['identical', choice(), choice(), kept],
		['changed-as-foretold', choice(), choice({ points: 1, hints: [] }), kept],
		[
			'changed-as-foretold',
			choice({ points: null }),
			choice(),
			{ outcome: 'changed' as const, what: ['points'], fields: ['points'], fitted: [choice()] }
		],
		['changed-otherwise', choice(), choice({ stem: 'Lost words' }), kept],
		['missing', choice(), undefined, kept]
	])('says %s', (outcome, sent, found, loss) => {
		const line = proofLine(3, sent, found, loss);
		expect(line.at).toBe(3);
		expect(line.outcome).toBe(outcome === 'changed-as-foretold' && !loss.fields.length ? 'identical' : outcome);
	});
});
