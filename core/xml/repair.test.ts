import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { attributeIn, repairStartTag, repairXml } from './repair';
import { escapeText } from './serialise';
import { parseXml } from './parse';
import { textOf } from './tree';
import { runsOf } from '../test-support/runs';

describe('markup that is not well-formed', () => {
	it.each([
		['a bare ampersand', '<p>Ship & shore</p>', '<p>Ship &amp; shore</p>'],
		['a bare less-than', '<p>if d < 5 m and g <b</p>', '<p>if d &lt; 5 m and g &lt;b</p>'],
		['words between signs', '<p>a <b and c> d</p>', '<p>a &lt;b and c> d</p>'],
		['an unclosed tag', '<div><b>Port<i> hand</div>', '<div><b>Port<i> hand</i></b></div>'],
		['crossed tags', '<p><b>red <i>and</b> white</i></p>', '<p><b>red <i>and</i></b> white</p>'],
		['an end without a beginning', '<p>red</b> buoy</p>', '<p>red buoy</p>'],
		['an unquoted attribute', '<p lang=en id=x1>a</p>', '<p lang="en" id="x1">a</p>'],
		['an attribute that is not closed', '<p title="Low tide>a</p>', '<p title="Low tide">a</p>'],
		['an ampersand in an attribute', '<p title="A & B">a</p>', '<p title="A &amp; B">a</p>'],
		['a break of HTML', '<p>one<br>two</p>', '<p>one<br/>two</p>'],
		['a repeated attribute', '<p id="a" id="b">x</p>', '<p id="a">x</p>'],
		['a character by its name', '<p>5&deg;&nbsp;C &unknown; &#x41;</p>', '<p>5°\u00a0C &amp;unknown; &#x41;</p>'],
		['paragraphs that follow one another', '<div><p>one<p>two</div>', '<div><p>one</p><p>two</p></div>'],
		['a control character', '<p>a\u000bb</p>', '<p>a b</p>'],
		['the end of a CDATA section alone', '<p>a ]]> b</p>', '<p>a ]]&gt; b</p>'],
		['what was cut off', '<p>one <b>two', '<p>one <b>two</b></p>']
	])('is put right and keeps its words: %s', (_, broken, mended) => {
		const text = repairXml(broken);
		expect(text === mended || textOf(parseXml(text).root!) === textOf(parseXml(mended).root!)).toBe(true);
		expect(parseXml(text).fault).toBeNull();
	});
	it('closes an option before the next one begins', () => {
		const text = repairXml(
			'<choiceInteraction><simpleChoice identifier="A">one<simpleChoice identifier="B">two</simpleChoice></choiceInteraction>'
		);
		expect(text).toContain('one</simpleChoice><simpleChoice identifier="B">two</simpleChoice>');
	});
	it('closes what an item holds before its next part begins', () => {
		const text = repairXml('<assessmentItem><itemBody><p>a<responseProcessing template="x"/></assessmentItem>');
		expect(text).toBe(
			'<assessmentItem><itemBody><p>a</p></itemBody><responseProcessing template="x"/></assessmentItem>'
		);
	});
	it('leaves what is well-formed as it is', () => {
		const text = '<p a="1">x &amp; <!-- y --><![CDATA[z < 1]]><q/> &#8212;</p>';
		expect(repairXml(text)).toBe(text);
	});
	it('gives well-formed markup with every word, whatever was broken', () => {
		const piece = fc.constantFrom(
			'<b>',
			'</b>',
			'<i',
			'>',
			'&',
			'<',
			'<p>',
			'</p>',
			' tide ',
			'ebb',
			'"',
			"'",
			'<a href=x',
			'/>',
			']]>',
			'<br>',
			'&amp;',
			'&#6;',
			'<!--',
			'-->',
			'</div>',
			'<img src="a&b">'
		);
		fc.assert(
			fc.property(fc.array(piece, { maxLength: 25 }), (pieces) => {
				const broken = `<div>${pieces.join('')}</div>`;
				const text = repairXml(broken);
				expect(parseXml(text).fault, text).toBeNull();
				expect(repairXml(text)).toBe(text);
			}),
			runsOf('REPAIR', 500)
		);
	});
	it('keeps all words of text that has every sign in it', () => {
		fc.assert(
			fc.property(
				fc.string({ unit: fc.constantFrom('k', 'z', ' ', '<', '&', '>', '"', '1', '=', ';', '/') }),
				(words) => {
					// an element that is whole is one, and its name is no word
					fc.pre(!/<[kz][^<]*\/>|<\/[kz]/.test(words));
					const { root } = parseXml(repairXml(`<p>${words}</p>`));
					const letters = (text: string) => text.replace(/[^kz1]/g, '');
					expect(letters(textOf(root!))).toBe(letters(words));
					expect(textOf(parseXml(repairXml(`<p>${escapeText(words)}</p>`)).root!)).toBe(words);
				}
			),
			runsOf('REPAIR', 300)
		);
	});
});

describe('the first tag of a damaged text', () => {
	it('is put right by itself', () => {
		expect(repairStartTag('<section title="Rope & cordage" ident=S1><item/>')).toEqual({
			xml: '<section title="Rope &amp; cordage" ident="S1">',
			length: 41
		});
		expect(repairStartTag('< section')).toBeNull();
	});
	it('tells its attributes', () => {
		expect(attributeIn('<item ident=Q7 title="Ebb &amp; flow" x>', 'title')).toBe('Ebb & flow');
		expect(attributeIn('<item ident=Q7 title="Ebb>', 'ident')).toBe('Q7');
		expect(attributeIn('<item title="Ebb>', 'title')).toBe('Ebb');
		expect(attributeIn('<item>', 'title')).toBe('');
	});
});
