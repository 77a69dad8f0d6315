import { describe, expect, it } from 'vitest';
import { formulaText } from './formula';
import { plainText } from './text';

const m = (inner: string) => `<math xmlns="http://www.w3.org/1998/Math/MathML">${inner}</math>`;

describe('a formula in plain text', () => {
	it.each([
		['a fraction', '<mfrac><mi>d</mi><mi>t</mi></mfrac>', 'd/t'],
		[
			'a fraction of sums',
			'<mfrac><mrow><mi>a</mi><mo>+</mo><mi>b</mi></mrow><mrow><mn>2</mn><mi>c</mi></mrow></mfrac>',
			'(a+b)/(2c)'
		],
		['a power', '<msup><mi>v</mi><mn>2</mn></msup>', 'v^2'],
		[
			'a power of a sum',
			'<msup><mrow><mo>(</mo><mi>a</mi><mo>+</mo><mn>1</mn><mo>)</mo></mrow><mrow><mi>n</mi><mo>−</mo><mn>1</mn></mrow></msup>',
			'(a+1)^(n−1)'
		],
		['a root', '<msqrt><mi>g</mi><mi>d</mi></msqrt>', '√(gd)'],
		['a cube root', '<mroot><mi>V</mi><mn>3</mn></mroot>', '∛(V)'],
		['another root', '<mroot><mi>V</mi><mn>5</mn></mroot>', 'V^(1/5)'],
		['an index', '<msub><mi>h</mi><mn>0</mn></msub>', 'h_0'],
		[
			'a sum',
			'<munderover><mo>∑</mo><mrow><mi>i</mi><mo>=</mo><mn>1</mn></mrow><mi>n</mi></munderover><mi>i</mi>',
			'∑_(i=1)^n i'
		],
		['brackets', '<mi>f</mi><mfenced><mi>x</mi><mi>y</mi></mfenced>', 'f(x, y)'],
		['signs that are not seen', '<mn>2</mn><mo>\u2062</mo><mi>x</mi>', '2x'],
		[
			'what it says in another notation',
			'<semantics><mrow><mi>d</mi></mrow><annotation encoding="application/x-tex">\\frac{d}</annotation></semantics>',
			'd'
		],
		['a root in a fraction', '<mfrac><mn>1</mn><msqrt><mi>x</mi></msqrt></mfrac>', '1/√(x)']
	])('keeps the sense of %s', (_, inner, text) => {
		expect(formulaText(inner)).toBe(text);
		expect(plainText(`<p>Say ${m(inner)} now.</p>`)).toBe(`Say ${text} now.`);
	});
	it('keeps signs that are escaped', () => {
		expect(plainText(m('<mi>a</mi><mo>&lt;</mo><mi>b</mi>'))).toBe('a<b');
	});
	it('keeps powers that are typed', () => {
		expect(plainText('5 m<sup>2</sup>, H<sub>2</sub>O, 21<sup>st</sup>, x<sup>-1</sup>')).toBe(
			'5 m^2, H2O, 21st, x^-1'
		);
	});
});
