import { describe, expect, it } from 'vitest';
import * as fc from 'fast-check';
import { parseXml } from '../xml/parse';
import { descendants } from '../xml/tree';
import { markupOfHtml, markupOfText, type CleanContext } from './clean';
import { displayMarkup } from './display';
import { beginning, fold, plainText } from './text';

function cleaned(html: string): { markup: string; removed: string[]; media: string[] } {
	const removed: string[] = [];
	const media: string[] = [];
	const context: CleanContext = {
		media: (address) => {
			if (/^[a-z]+:/i.test(address)) return null;
			media.push(address);
			return `pack/${address}`;
		},
		removed: (what) => removed.push(what)
	};
	return { markup: markupOfHtml(html, context), removed, media };
}

describe('plain HTML', () => {
	const piece = fc.constantFrom(
		...['tide', ' ', '\n', '&amp;', '&lt;', '&quot;', '&nbsp;', '&', '<br/>', '<br>', '</p>', '<p>', '<li>', '<p/>'],
		...['<img src="a.png" alt="quay"/>', '<img src="a.png" alt="quay">', '<span class="unit">m</span>']
	);
	const { html } = fc.letrec<{ html: string }>((tie) => ({
		html: fc.oneof(
			{ maxDepth: 4 },
			piece,
			fc
				.tuple(fc.constantFrom('b', 'i', 'p', 'div', 'sub', 'span', 'u', 'code', 'ul', 'a'), tie('html'), tie('html'))
				.map(([name, first, more]) => `<${name}>${first}</${name}>${more}`)
		)
	}));
	it('is what the rules of HTML make of it, however it is read', () => {
		const context = { media: (address: string) => address, removed: () => undefined };
		fc.assert(
			// a comment is no plain HTML, and says nothing
			fc.property(html, (text) => {
				expect(markupOfHtml(text, context)).toBe(markupOfHtml(`<!-- -->${text}`, context));
			}),
			{ numRuns: 3000 }
		);
	});
	it('takes no longer than it is long, also where it turns out to be none at its end', () => {
		const long = `${'tide '.repeat(3900)}<script>`;
		expect(markupOfHtml(long, { media: () => null, removed: () => undefined })).toBe('tide '.repeat(3900).trim());
	});
});

describe('cleaning', () => {
	it.each([
		['<script>stop()</script>Fog', 'Fog', ['script']],
		['<img src="x.png" onerror="stop()">', '<img src="media:pack/x.png"/>', ['onerror handler']],
		['<p onclick="stop()" ONFOCUS=stop()>Fog</p>', 'Fog', ['onclick handler', 'onfocus handler']],
		['<a href="javascript:stop()">Fog</a>', 'Fog', ['javascript link']],
		['<a href=" jAvA\tscript:stop()">Fog</a>', 'Fog', ['java\tscript link']],
		['<iframe src="https://gullhaven.example"></iframe>Fog', 'Fog', ['iframe']],
		['<svg><script>stop()</script><text>Fog</text></svg>', 'Fog', ['script']],
		['<img src="javascript:stop()">Fog', 'Fog', ['javascript address']],
		['<object data="data:text/html,stop"></object>Fog', 'Fog', ['data address']],
		['<form action="/x"><input name="a">Fog<button>Go</button></form>', 'FogGo', ['form', 'input', 'button']],
		['<embed src="x.swf">Fog', 'Fog', ['embed']],
		[
			'<math><annotation-xml encoding="text/html"><script>stop()</script></annotation-xml><mi>h</mi></math>',
			'<math xmlns="http://www.w3.org/1998/Math/MathML"><mi>h</mi></math>',
			['script']
		]
	])('makes %s harmless', (html, markup, removed) => {
		expect(cleaned(html)).toMatchObject({ markup, removed });
	});
	it.each([
		['styles and comments', '<style>p{}</style><!-- note --><p style="color:red">Fog</p>', 'Fog'],
		['unknown elements', '<font color="red">Sea</font> <center>fog</center>', '<p>Sea </p><div>fog</div>'],
		['tag soup', '<p><b>Sea <i>fog', '<b>Sea <i>fog</i></b>']
	])('tidies %s without a word', (_, html, markup) => {
		expect(cleaned(html)).toEqual({ markup, removed: [], media: [] });
	});
	it('keeps what underlines, strikes out and marks', () => {
		expect(cleaned('<u>a</u><s>b</s><mark>c</mark>').markup).toBe(
			'<span class="underlined">a</span><span class="struck">b</span><span class="marked">c</span>'
		);
	});
	it('names the files that it meets', () => {
		const { markup, media } = cleaned(
			'<img src="a.png" width="120px" height="40"><audio src="fog.wav"></audio><a href="notes.pdf">notes</a>'
		);
		expect(media).toEqual(['a.png', 'fog.wav', 'notes.pdf']);
		expect(markup).toContain('<img src="media:pack/a.png" width="120" height="40"/>');
		expect(markup).toContain('<object data="media:pack/fog.wav" type="audio/mpeg"/>');
		expect(markup).toContain('<a href="media:pack/notes.pdf">notes</a>');
	});
	it('keeps a picture that is written into the text, and no other such data', () => {
		expect(cleaned('<img src="data:image/png;base64,iVBORw0KGgo=">').markup).toContain(
			'data:image/png;base64,iVBORw0KGgo='
		);
		expect(cleaned('<img src="data:image/svg+xml,<svg onload=stop()>">')).toMatchObject({
			markup: '',
			removed: ['data address']
		});
	});

	it('flattens what is nested without measure, and keeps its words', () => {
		const { markup } = cleaned(`${'<div>'.repeat(20_000)}Fog<script>stop()</script>`);
		expect(plainText(markup)).toBe('Fog');
	});

	const anything = fc.array(
		fc.constantFrom(
			'<p>',
			'</p>',
			'<b>',
			'</b>',
			'<script>',
			'</script>',
			'<img src=x onerror=a>',
			'<table>',
			'<tr>',
			'<td>',
			'</table>',
			'<ul>',
			'<li>',
			'<svg>',
			'<math>',
			'<mi>',
			'<a href="javascript:a">',
			'</a>',
			'<style>',
			'Fog ',
			'&lt;',
			'&amp;',
			'<!--',
			'-->',
			'<div onclick=a>',
			'</div>',
			'<p',
			'"',
			'>',
			'<iframe srcdoc="<script>">',
			'<blockquote>',
			'<dl>',
			'<dt>',
			'<caption>',
			'<object data=x>'
		)
	);
	it('gives well-formed text with nothing active in it, whatever comes', () => {
		fc.assert(
			fc.property(anything, (parts) => {
				const { markup } = cleaned(parts.join(''));
				const { root, fault } = parseXml(`<x>${markup}</x>`);
				expect(fault).toBeNull();
				expect(descendants(root!, 'script', 'iframe', 'style', 'svg', 'form', 'input', 'embed')).toEqual([]);
				expect(markup).not.toMatch(/<[^>]*\son[a-z]+=|javascript:/i);
			}),
			{ numRuns: 500 }
		);
	});
	it('changes nothing when it is done again', () => {
		fc.assert(
			fc.property(anything, (parts) => {
				const again: CleanContext = { media: (address) => address, removed: () => undefined };
				const once = markupOfHtml(parts.join(''), again);
				const twice = markupOfHtml(displayless(once), again);
				expect(plainText(twice)).toBe(plainText(once));
			}),
			{ numRuns: 200 }
		);
	});
	/** Elements written out, as HTML wants them. */
	const displayless = (markup: string) => markup.replace(/<(?!br|hr|img|col)([a-z0-9]+)([^<>]*)\/>/g, '<$1$2></$1>');
});

describe('the shape of rich text', () => {
	it.each([
		['one paragraph around everything goes', '<p>Fog</p>', 'Fog'],
		['a paragraph with a class stays', '<p class="marked">Fog</p>', '<p class="marked">Fog</p>'],
		['text beside blocks gets a paragraph', 'Look:<ul><li>a</li></ul>', '<p>Look:</p><ul><li>a</li></ul>'],
		[
			'rows get the body that they need',
			'<table><tr><td>a</td></tr></table>',
			'<table><tbody><tr><td>a</td></tr></tbody></table>'
		],
		['a block inside a line comes out of it', '<span>a<div>b</div></span>', '<p>a</p><div>b</div>'],
		['a list without entries goes', '<ul></ul>Fog', 'Fog'],
		['a link in a link is one link', '<a href="#a">x<b>y</b></a>', '<a href="#a">x<b>y</b></a>'],
		['a quotation holds blocks', '<blockquote>Fog</blockquote>', '<blockquote><p>Fog</p></blockquote>']
	])('%s', (_, html, markup) => {
		expect(cleaned(html).markup).toBe(markup);
	});
});

describe('plain text', () => {
	it.each([
		['<p>Sea</p><p>fog</p>', 'Sea fog'],
		['<b>Sea</b>fog', 'Seafog'],
		['a<br/>b', 'a b'],
		['5 &lt; 6 &amp;amp; 7', '5 < 6 &amp; 7'],
		['<table><tbody><tr><td>a</td><td>b</td></tr></tbody></table>', 'a b'],
		['&#176;', '°']
	])('of %s is “%s”', (markup, text) => {
		expect(plainText(markup)).toBe(text);
	});
	it('is what was put in, white space folded', () => {
		const sign = fc.constantFrom('a', 'B', ' ', '\n', '\u00a0', '<', '>', '&', '"', ';', '#', 'é', '🌊');
		fc.assert(
			fc.property(fc.string({ unit: sign }), (text) => {
				expect(plainText(markupOfText(text))).toBe(fold(text));
			})
		);
	});
	it('is cut at a word', () => {
		expect(beginning('Which cloud comes first as a front draws near?', 20)).toBe('Which cloud comes…');
		expect(beginning('Fog', 20)).toBe('Fog');
	});
});

describe('a class in rich text', () => {
	it('is one of ours or none, so that a question cannot take the looks of the application', () => {
		const given = '<p class="over marked visually-hidden">Fog</p><span class="foot-bar">x</span>';
		const context = { media: () => null, removed: () => undefined };
		const clean = markupOfHtml(given, context);
		expect(clean).toContain('class="marked"');
		expect(clean).not.toMatch(/over|hidden|foot-bar/);
	});
	it('that stands in a question from before is not shown', () => {
		const shown = displayMarkup('<p class="way">Fog <span class="struck visually-hidden">x</span></p>', [], () => '');
		expect(shown).toBe('<p>Fog <span class="struck">x</span></p>');
	});
});

describe('rich text on a page', () => {
	const hash = 'ab'.repeat(32);
	const attachments = [
		{ name: 'pictures/a & b.png', mediaType: 'image/png', hash, missing: false },
		{ name: 'gone.png', mediaType: 'image/png', hash: null, missing: true },
		{ name: 'fog.wav', mediaType: 'audio/wav', hash, missing: false }
	];
	const shown = (markup: string) => displayMarkup(markup, attachments, (one, type) => `/files/${one}?as=${type}`);

	it('shows pictures from where they are stored', () => {
		expect(shown('<img src="media:pictures/a &amp; b.png" alt="x"/>')).toBe(
			`<img src="/files/${hash}?as=image/png" alt="x"/>`
		);
	});
	it('shows a frame with the name where a picture is missing', () => {
		expect(shown('<img src="media:gone.png" alt=""/>')).toContain('picture missing: gone.png');
	});
	it('plays sound', () => {
		expect(shown('<object data="media:fog.wav" type="audio/wav"/>')).toContain('<audio controls');
	});
	it('writes out empty elements as HTML wants them', () => {
		expect(shown('<p/>a<br/><span class="struck"/>')).toBe('<p></p>a<br/><span class="struck"></span>');
	});
});
