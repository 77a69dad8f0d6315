import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { runsOf } from '../test-support/runs';
import { visible } from './visible';

describe('a name that is shown', () => {
	it.each([
		['Ebb \u202eelpmis', 'Ebb ⟨U+202E⟩elpmis'],
		['bow\u200bline', 'bow⟨U+200B⟩line'],
		['\ufeffTides', '⟨U+FEFF⟩Tides'],
		['a\u2066b\u2069', 'a⟨U+2066⟩b⟨U+2069⟩'],
		['neap\u200ftide', 'neap⟨U+200F⟩tide'],
		['x\u0000y', 'x⟨U+0000⟩y'],
		['\u{e0041}flag', '⟨U+E0041⟩flag'],
		['constructor', 'constructor']
	])('shows what nobody would see: %j', (text, shown) => expect(visible(text)).toBe(shown));
	it.each([
		'Strömung und Gezeiten',
		'شماره\u200cها',
		'שלום\u200f (א)',
		'क्\u200dष',
		'👩\u200d✈\ufe0f at the helm',
		'½ fathom – “quoted”',
		'潮汐'
	])('is left as it is written: %s', (text) => expect(visible(text)).toBe(text));
	it('holds no sign that turns words round, whatever it is', () => {
		fc.assert(
			fc.property(fc.string({ unit: 'binary' }), (text) => {
				expect(visible(text)).not.toMatch(/[\u202a-\u202e\u2066-\u2069\u200b\ufeff]/);
				expect(visible(visible(text))).toBe(visible(text));
			}),
			runsOf('VISIBLE', 500)
		);
	});
});
