import { describe, expect, it } from 'vitest';
import * as fc from 'fast-check';
import type { XmlEvent } from './events';
import { parseXml } from './parse';
import { streamXml } from './stream';
import { escapeText, serialise } from './serialise';
import { childrenOf, descendants, element, textOf, trimmed, type XmlNode } from './tree';

async function pass(pieces: string[], options: Partial<Parameters<typeof streamXml>[1]> = {}): Promise<XmlEvent[]> {
	const events: XmlEvent[] = [];
	for await (const event of streamXml(pieces, { collect: (name) => name === 'item', resumeAt: 'item', ...options }))
		events.push(event);
	return events;
}
const items = (events: XmlEvent[]) =>
	events.flatMap((event) => (event.type === 'element' ? [event.element.attributes.n] : []));
const faults = (events: XmlEvent[]) =>
	events.flatMap((event) => (event.type === 'fault' ? [`${event.rule}:${event.line}`] : []));
const document =
	'<bank>\n<section title="Tides">\n<item n="1"><p>a &lt; b</p></item>\n<item n="2"/>\n</section>\n<item n="3">c</item>\n</bank>';

describe('a pass over a document', () => {
	it('gives what is collected whole, and the rest as it opens and closes', async () => {
		const events = await pass([document]);
		expect(events.map((event) => event.type)).toEqual([
			'open',
			'open',
			'element',
			'element',
			'close',
			'element',
			'close'
		]);
		expect(items(events)).toEqual(['1', '2', '3']);
	});
	it('gives each element its line and its own source', async () => {
		const [first, second] = (await pass([document])).filter((event) => event.type === 'element');
		expect(first).toMatchObject({ fragment: '<item n="1"><p>a &lt; b</p></item>', endLine: 3, element: { line: 3 } });
		expect(second).toMatchObject({ fragment: '<item n="2"/>' });
	});
	it('gives the same however the text is cut into pieces', async () => {
		const whole = await pass([document]);
		await fc.assert(
			fc.asyncProperty(fc.uniqueArray(fc.nat(document.length), { maxLength: 8 }), async (cuts) => {
				const at = [0, ...cuts.sort((a, b) => a - b), document.length];
				const pieces = at.slice(1).map((end, n) => document.slice(at[n], end));
				expect(await pass(pieces)).toEqual(whole);
			}),
			{ numRuns: 200 }
		);
	});
	it('strips prefixes from names', () => {
		const { root } = parseXml('<q:a xmlns:q="urn:x" q:b="1" xml:lang="en"><q:c/></q:a>');
		expect(root).toMatchObject({ name: 'a', attributes: { b: '1', 'xml:lang': 'en' }, children: [{ name: 'c' }] });
	});
});

describe('a damaged document', () => {
	it('loses the one element, and goes on with the next', async () => {
		const events = await pass([
			'<bank><section title="A"><item n="1"/>\n<item n="2"><b></item>\n<item n="3"/></section><item n="4"/></bank>'
		]);
		expect(items(events)).toEqual(['1', '3', '4']);
		expect(faults(events)).toEqual(['not-well-formed:2']);
	});
	it('gives the damaged element as it came, with the lines that it stands on', async () => {
		const broken = '<item n="2">\n<b>Port & starboard\n</item>';
		const events = await pass([`<bank>\n<item n="1"/>\n${broken}\n<item n="3"/></bank>`]);
		expect(events.find((event) => event.type === 'fault')).toMatchObject({ fragment: broken, from: 3, line: 4, to: 5 });
		expect(items(events)).toEqual(['1', '3']);
		expect(events.at(-2)).toMatchObject({ type: 'element', element: { line: 6 } });
	});
	it('keeps what follows in its own section where the last element of one is damaged', async () => {
		const events = await pass([
			'<bank><section title="A"><item n="1"><b></item></section><section title="B"><item n="2"/></section></bank>'
		]);
		const opened = events.filter((event) => event.type === 'open').map((event) => event.attributes.title);
		expect(opened).toEqual([undefined, 'A', 'B']);
		expect(events.map((event) => event.type)).toEqual('open open fault close open element close close'.split(' '));
	});
	it.each([
		['an end tag is lost', '<item n="2"><b>x</b><item n="3"/>', ['1', '3', '4']],
		['a comment never ends', '<item n="2"><!-- x </item>\n<item n="3"/>', ['1', '3', '4']],
		['CDATA never ends', '<item n="2"><![CDATA[ x </item>\n<item n="3"/>', ['1', '3', '4']],
		['a quotation mark is lost', '<item n="2" title="x><b/></item>\n<item n="3"/>', ['1', '3', '4']],
		['its own start tag is damaged', '<item n=2><b/></item>\n<item n="3"/>', ['1', '3', '4']]
	])('reads what follows an element in which %s', async (_, broken, read) => {
		const whole = `<bank><item n="1"/>\n${broken}\n<item n="4"/></bank>`;
		const events = await pass([whole]);
		expect(items(events)).toEqual(read);
		const damaged = events.filter((event) => event.type === 'fault');
		expect(damaged).toHaveLength(1);
		expect(damaged[0]!.fragment).toMatch(/^<item n="?2/);
		for (let at = 1; at < whole.length; at += 1)
			expect(items(await pass([whole.slice(0, at), whole.slice(at)]))).toEqual(read);
	});
	it('puts a damaged tag between the elements right', async () => {
		const text = '<bank><section title="Rope & cordage"><item n="1"/></section><item n="2"/></bank>';
		for (let at = 1; at < text.length; at += 1) {
			const events = await pass([text.slice(0, at), text.slice(at)]);
			expect(events.flatMap((event) => (event.type === 'open' ? [event.attributes.title] : []))).toEqual([
				undefined,
				'Rope & cordage'
			]);
			expect(items(events)).toEqual(['1', '2']);
			expect(faults(events)).toEqual(['not-well-formed:1']);
		}
	});
	it('still knows in which section it is afterwards', async () => {
		const events = await pass(['<bank><section title="A"><item n="1"><b></item><item n="2"/></section></bank>']);
		expect(events.map((event) => event.type)).toEqual(['open', 'open', 'fault', 'element', 'close', 'close']);
	});
	it.each([
		['in words', '<item n="1">Ship & shore</item>'],
		['in an address', '<item n="1"><a href="x?a=1&b=2"/></item>'],
		['before the end', '<item n="1">&</item>'],
		['cut short', '<item n="1">&#12</item>']
	])('loses no more than the element where an ampersand stands by itself %s', async (_, broken) => {
		const events = await pass([`<bank><item n="0"/>\n${broken}\n<item n="2">a; b</item></bank>`]);
		expect(items(events)).toEqual(['0', '2']);
		expect(faults(events)).toEqual(['not-well-formed:2']);
	});
	it('lets an ampersand stand in CDATA and in comments, also over pieces', async () => {
		const text =
			'<bank><!-- a & b --><item n="1"><![CDATA[Ship & shore & sea]]></item><item n="2">x &amp; y</item></bank>';
		expect(faults(await pass([text]))).toEqual([]);
		expect(items(await pass([...text]))).toEqual(['1', '2']);
		const halves = [text.slice(0, 44), text.slice(44, 58), text.slice(58)];
		expect(faults(await pass(halves))).toEqual([]);
	});
	it('says that a file ends too early, and keeps what came before', async () => {
		const events = await pass(['<bank><item n="1"/>\n<item n="2"><p>half']);
		expect(items(events)).toEqual(['1']);
		expect(faults(events)).toEqual(['cut-off:2']);
		expect(events.at(-1)).toMatchObject({ inside: { attributes: { n: '2' } } });
	});
	it('reads HTML’s named characters, and says so', () => {
		const { root, warnings } = parseXml('<a>1013&nbsp;hPa at 5&deg;</a>');
		expect(textOf(root!)).toBe('1013\u00a0hPa at 5°');
		expect(warnings.map((warning) => warning.rule)).toEqual(['bad-entity', 'bad-entity']);
	});
	it('takes entities that stand for plain characters', () => {
		const { root, fault } = parseXml(
			'<!DOCTYPE a [<!ENTITY knot "bowline"><!ENTITY deg "&#176;">]><a>&knot; 5&deg;</a>'
		);
		expect(fault).toBeNull();
		expect(textOf(root!)).toBe('bowline 5°');
	});
	it.each([
		['an outside entity', '<!ENTITY x SYSTEM "file:///etc/passwd">', 'external-entity'],
		['an outside parameter entity', '<!ENTITY % x SYSTEM "http://192.0.2.1/x">', 'external-entity'],
		['an entity made of entities', '<!ENTITY x "&y;&y;"><!ENTITY y "&z;">', 'entity-expansion']
	])('refuses %s, and everything after it', async (_, declaration, rule) => {
		const events = await pass([`<!DOCTYPE bank [${declaration}]><bank><item n="1">&x;</item></bank>`]);
		expect(events.map((event) => (event.type === 'fault' ? event.rule : event.type))).toEqual([rule]);
	});
	it('refuses what is nested without measure, and goes on with the next', async () => {
		const deep = `<item n="1">${'<b>'.repeat(50_000)}${'</b>'.repeat(50_000)}</item>`;
		const events = await pass([`<bank>${deep}<item n="2"/></bank>`]);
		expect(items(events)).toEqual(['2']);
		expect(faults(events)).toEqual(['not-well-formed:1']);
		expect(parseXml('<a>'.repeat(100_000)).fault).toMatchObject({ rule: 'not-well-formed' });
		expect(faults(await pass(['<section>'.repeat(100_000)]))).toEqual(['not-well-formed:1']);
	});
	it('ends on any garbage, with a fault and no more', async () => {
		await fc.assert(
			fc.asyncProperty(
				fc.array(
					fc.constantFrom(
						'<',
						'>',
						'&',
						';',
						'<item ',
						'</item>',
						'<bank>',
						'"',
						'=',
						'n',
						'<!--',
						']]>',
						'<![CDATA[',
						' ',
						'\n',
						'&#0;',
						'<?'
					)
				),
				async (parts) => {
					const events = await pass([parts.join('')]);
					expect(events.length).toBeLessThan(200);
				}
			),
			{ numRuns: 400 }
		);
	});
});

describe('the tree', () => {
	const text = fc.string({ unit: fc.constantFrom('a', 'é', '<', '>', '&', '"', "'", ' ', ']', '🌊') });
	const node = fc.letrec<{ node: XmlNode }>((tie) => ({
		node: fc.oneof(
			{ maxDepth: 3 },
			text.filter((one) => one !== ''),
			fc
				.tuple(fc.constantFrom('p', 'b', 'em'), text, fc.array(tie('node'), { maxLength: 3 }))
				.map(([name, title, children]) => element(name, { title }, children))
		)
	})).node;
	const joined = (nodes: XmlNode[]): XmlNode[] =>
		nodes.reduce<XmlNode[]>((out, one) => {
			if (typeof one !== 'string') return [...out, { ...one, line: 0, children: joined(one.children) }];
			return typeof out.at(-1) === 'string' ? [...out.slice(0, -1), `${out.at(-1) as string}${one}`] : [...out, one];
		}, []);

	it('is the same once it is written and read', () => {
		fc.assert(
			fc.property(fc.array(node, { maxLength: 4 }), (nodes) => {
				const { root } = parseXml(`<x>${serialise(nodes)}</x>`);
				expect(joined(root!.children)).toEqual(joined(nodes));
			})
		);
	});
	it('shows where characters stood that XML forbids', () => {
		expect(escapeText('a\u0000b\u000bc\ud800d')).toBe('a\ufffdb\ufffdc\ufffdd');
	});
	it('finds what is below', () => {
		const { root } = parseXml('<a><b><c> x </c></b><c/>text</a>');
		expect(childrenOf(root!)).toHaveLength(2);
		expect(descendants(root!, 'c')).toHaveLength(2);
		expect(trimmed(root!)).toBe('x text');
	});
});
