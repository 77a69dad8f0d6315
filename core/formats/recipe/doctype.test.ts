import { describe, expect, it } from 'vitest';
import { withoutDoctype } from './doctype';

describe('XML of a school’s own with a document type', () => {
	it('is read with the plain characters that it declares', () => {
		const given =
			'<?xml version="1.0"?>\n<!DOCTYPE list [\n<!ENTITY half "&#189;">\n]>\n<list>&half; a mile &amp; more</list>';
		const found = withoutDoctype(given) as { text: string };
		expect(found.text).toContain('<list>½ a mile &amp; more</list>');
		expect(found.text.split('\n')).toHaveLength(given.split('\n').length);
	});
	it('keeps what is in comments and CDATA as it stands', () => {
		expect(withoutDoctype('<!DOCTYPE l [<!ENTITY a "b">]><l><!-- &a; --><![CDATA[&a;]]>&a;</l>')).toEqual({
			text: '<l><!-- &a; --><![CDATA[&a;]]>b</l>'
		});
	});
	it('makes no markup of what an entity says', () => {
		expect(withoutDoctype('<!DOCTYPE l [<!ENTITY a "x &#62; y">]><l>&a;</l>')).toEqual({ text: '<l>x &gt; y</l>' });
	});
	it.each([
		['stands outside', '<!DOCTYPE l SYSTEM "file:///etc/passwd"><l/>', 'external-entity'],
		['stands at an address', '<!DOCTYPE l PUBLIC "-//x" "http://example.invalid/x.dtd"><l/>', 'external-entity'],
		[
			'brings an entity from outside',
			'<!DOCTYPE l [<!ENTITY a SYSTEM "file:///etc/passwd">]><l>&a;</l>',
			'external-entity'
		],
		[
			'builds entities out of entities',
			'<!DOCTYPE l [<!ENTITY a "aa"><!ENTITY b "&a;&a;">]><l>&b;</l>',
			'entity-expansion'
		]
	])('is refused where it %s', (_, text, rule) => {
		expect(withoutDoctype(text)).toMatchObject({ refused: { rule } });
	});
	it('is left alone without one', () => {
		expect(withoutDoctype('<list>&half;</list>')).toEqual({ text: '<list>&half;</list>' });
	});
});
