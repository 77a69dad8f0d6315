import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { differences } from '../../compare/canonical';
import { anyQuestion } from '../../test-support/arbitrary';
import { choice } from '../../test-support/questions';
import { emptyCommon } from '../../model/question';
import type { Question } from '../../kinds';
import { writtenFormats, writtenFormat } from '../index';

describe.each(writtenFormats.map((format) => [format.name, format] as const))('what %s holds', (_, format) => {
	it('is told of any question: what is written is of its kinds, and what is kept is not touched', () => {
		fc.assert(
			fc.property(anyQuestion, (question) => {
				const loss = format.loss(question);
				for (const fitted of loss.fitted) expect(format.limits.holds[fitted.kind]).toBe(true);
				if (loss.outcome === 'lost') expect(loss.fitted).toEqual([]);
				else expect(loss.fitted.length).toBeGreaterThan(0);
				if (loss.outcome === 'kept') expect(differences(question, loss.fitted[0]!)).toEqual([]);
				else expect(loss.what.length, 'what is changed or lost is said in words').toBeGreaterThan(0);
			}),
			{ numRuns: 60 }
		);
	});
	it('fits once it has been fitted', () => {
		fc.assert(
			fc.property(anyQuestion, (question) => {
				for (const fitted of format.loss(question).fitted) {
					const again = format.loss(fitted);
					// at most there is something to know of how other programs read it
					expect(again.outcome).not.toBe('lost');
					expect(again.fields).toEqual([]);
				}
			}),
			{ numRuns: 40 }
		);
	});
});

describe('a question that a format does not know', () => {
	const ordering: Question = {
		...emptyCommon('o', 'Winds'),
		stem: 'Put them in order, the weakest first.',
		points: 2,
		kind: 'ordering',
		items: ['light breeze', 'fresh breeze', 'gale'].map((text, at) => ({ identifier: `I${at}`, text })),
		presented: ['I2', 'I0', 'I1'],
		rule: 'position',
		shuffle: true
	};
	it('goes in the nearest kind, which asks for the same', () => {
		const loss = writtenFormat('cc12')!.loss(ordering);
		expect(loss.outcome).toBe('changed');
		expect(loss.fitted.map((one) => one.kind)).not.toContain('ordering');
		expect(loss.fitted[0]!.stem).toContain('Put them in order');
	});
	it('keeps its hints where there is a place for them, and says so where there is none', () => {
		const hinted = choice({ hints: ['Think of mares’ tails.'] });
		expect(writtenFormat('json')!.loss(hinted).outcome).toBe('kept');
		expect(writtenFormat('cc13')!.loss(hinted).what.join(' ')).toMatch(/hint/);
	});
});

describe('a picture in a format that holds none', () => {
	it('is called by what it shows, with its quotes and signs as a text has them', () => {
		const question = choice({ stem: '<img src="media:chart.png" alt="a &quot;spring&quot; &amp; a neap"/>' });
		const [fitted] = writtenFormat('qti12-xml')!.loss(question).fitted;
		expect(fitted!.stem).toBe('a "spring" &amp; a neap (chart.png)');
	});
});

describe('places that earn only together, and more of them than may be pointed at', () => {
	it('may all be pointed at where QTI 2 writes them, and that is said', () => {
		const shape = (at: number) => ({
			identifier: `S${at}`,
			shape: 'circle' as const,
			coordinates: [20 * at + 10, 10, 5],
			credit: 1 / 3
		});
		const question: Question = {
			...emptyCommon('h', 'Buoys'),
			stem: 'Point at the cardinal marks.',
			kind: 'hotspot',
			picture: { name: 'chart.png', width: 120, height: 120, alt: 'a chart' },
			attachments: [{ name: 'chart.png', mediaType: 'image/png', hash: null, missing: true }],
			shapes: [shape(0), shape(1), shape(2)],
			mode: 'points',
			picks: 2,
			outside: 0,
			combination: 'all',
			bounds: { lower: null, upper: null }
		};
		const loss = writtenFormat('qti21')!.loss(question);
		expect(loss.fitted).toMatchObject([{ picks: 3, combination: 'all' }]);
		expect(loss.what.join()).toContain('as many places may be pointed at');
		expect(writtenFormat('json')!.loss(question).outcome).toBe('kept');
	});
});
