import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainText } from '../../markup/text';
import { escapeText } from '../../xml/serialise';
import { lineOf } from './lines';
import { cut } from './marks';

const seen = (text: string) => text.replace(/\s/g, '');

describe('a part of a line', () => {
	it('has the same signs in its rich text as in its plain text, whatever blanks stand in either', () => {
		const piece = fc.record({
			word: fc.stringMatching(/^[a-zA-Z0-9.)(<&é*]{1,6}$/),
			tag: fc.constantFrom('', 'b', 'i', 'sup'),
			gap: fc.constantFrom<[string, string]>([' ', ' '], ['    ', ' '], [' ', '\u00a0'], ['', ''])
		});
		fc.assert(
			fc.property(fc.array(piece, { minLength: 1, maxLength: 6 }), fc.nat(), fc.nat(), (pieces, a, b) => {
				const text = pieces.map(({ word, gap }) => word + gap[0]).join('');
				const markup = pieces
					.map(({ word, tag, gap }) => `${tag ? `<${tag}>${escapeText(word)}</${tag}>` : escapeText(word)}${gap[1]}`)
					.join('');
				const [from, to] = [a % (text.length + 1), b % (text.length + 1)].sort((one, other) => one - other) as [
					number,
					number
				];
				const part = cut({ ...lineOf('', 1), text, markup }, from, to);
				expect(part.text).toBe(text.slice(from, to).trim());
				// a raised number is written with a sign of its own
				expect(seen(plainText(part.markup)).replace(/\^/g, '')).toBe(seen(part.text));
			}),
			{ numRuns: 500, seed: 7 }
		);
	});
});
