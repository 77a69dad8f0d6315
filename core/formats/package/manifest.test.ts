import { describe, expect, it } from 'vitest';
import { opened, readAll, zipped, type Files } from '../../test-support/packages';
import { declaredFormat, findManifest, readManifest } from './manifest';
import type { Report } from '../../reports/report';

const head = (schema: string, version = '1.0.0') =>
	`<metadata><schema>${schema}</schema><schemaversion>${version}</schemaversion></metadata>`;
const manifest = (inner: string, attributes = '') =>
	`<manifest identifier="M"${attributes}>${inner}<organizations/></manifest>`;
const read = async (xml: string, more: Files = {}) => {
	const told: Report[] = [];
	const container = await opened({ 'imsmanifest.xml': xml, ...more });
	return { found: await readManifest(container, 'imsmanifest.xml', (report) => told.push(report)), told };
};
const item = (id: string, namespace = 'http://www.imsglobal.org/xsd/imsqti_v2p1') =>
	`<assessmentItem xmlns="${namespace}" identifier="${id}" title="${id}" adaptive="false" timeDependent="false"><itemBody><p>Look at ${id}.</p></itemBody></assessmentItem>`;
const resource = (inner: string, attributes = 'type="imsqti_item_xmlv2p1" href="a.xml"') =>
	`<resources><resource identifier="R" ${attributes}>${inner}<file href="a.xml"/></resource></resources>`;
const lom = (inner: string) => `<metadata><lom xmlns="http://ltsc.ieee.org/xsd/LOM">${inner}</lom></metadata>`;
const string = (text: string) => `<string language="en">${text}</string>`;

describe('a manifest', () => {
	it.each([
		['QTIv2.1 Package', '1.0.0', 'qti21'],
		['QTIv2.2 Package', '1.0.0', 'qti22'],
		['QTI Package', '3.0.0', 'qti30'],
		['QTIv3.0 Package', '1.0.0', 'qti30'],
		['IMS Common Cartridge', '1.1.0', 'cc11'],
		['IMS Common Cartridge', '1.2.0', 'cc12'],
		['IMS Common Cartridge', '1.3.0', 'cc13'],
		['IMS Content', '1.1.3', null]
	])('of %s %s says what it holds', async (schema, version, format) => {
		const { found } = await read(manifest(head(schema, version)));
		expect(declaredFormat(found)).toBe(format);
	});
	it.each([
		['imsqti_item_xmlv2p0', 'qti20'],
		['imsqti_item_xmlv2p1', 'qti21'],
		['imsqti_item_xmlv2p2', 'qti22'],
		['imsqti_item_xmlv3p0', 'qti30'],
		['imsqti_xmlv1p2', 'qti12'],
		['webcontent', null]
	])('is known by the type of its resources, %s, where it names no schema', async (type, format) => {
		const { found } = await read(manifest(resource('', `type="${type}" href="a.xml"`)));
		expect(declaredFormat(found)).toBe(format);
	});
	it.each([
		[
			'beside each other',
			`<taxonPath><taxon><entry>${string('Tides')}</entry></taxon><taxon><entry>${string('Springs')}</entry></taxon></taxonPath>`
		],
		[
			'one in the other',
			`<taxonPath><taxon><entry>${string('Tides')}</entry><taxon><entry>${string('Springs')}</entry></taxon></taxon></taxonPath>`
		],
		[
			'in the older names of the binding',
			'<taxonpath><taxon><entry><langstring>Tides</langstring></entry></taxon><taxon><entry><langstring>Springs</langstring></entry></taxon></taxonpath>'
		],
		['by their identifiers', '<taxonPath><taxon><id>Tides</id></taxon><taxon><id>Springs</id></taxon></taxonPath>']
	])('has categories as taxons %s', async (_, path) => {
		const { found } = await read(manifest(resource(lom(`<classification>${path}</classification>`))));
		expect(found.resources.at(0).category).toEqual(['Tides', 'Springs']);
	});
	it('tells a resource without a classification from one that is in no category', async () => {
		const none = await read(manifest(resource('')));
		expect(none.found.resources.at(0).category).toBeNull();
		const empty = await read(
			manifest(resource(lom('<classification><taxonPath><source/></taxonPath></classification>')))
		);
		expect(empty.found.resources.at(0).category).toEqual([]);
	});
	it('has keywords and how hard a question is', async () => {
		const { found } = await read(
			manifest(
				resource(
					lom(
						`<general><keyword>${string('spring')}</keyword><keyword>${string('neap')}</keyword></general><educational><difficulty><source>${string('x')}</source><value>hard</value></difficulty></educational>`
					)
				)
			)
		);
		expect(found.resources.at(0)).toMatchObject({ keywords: ['spring', 'neap'], difficulty: 'hard' });
	});
	it('puts base addresses of the manifest, the resources and the resource one behind the other', async () => {
		const { found } = await read(
			manifest(
				'<resources xml:base="bank"><resource identifier="R" type="imsqti_item_xmlv2p1" xml:base="tides/" href="a%20b.xml"><file href="a%20b.xml"/><file href="../chart.svg"/></resource></resources>',
				' xml:base="spring/"'
			),
			{ 'spring/bank/tides/a b.xml': item('a') }
		);
		expect(found.resources.at(0)).toMatchObject({
			file: 'spring/bank/tides/a b.xml',
			files: ['spring/bank/tides/a b.xml', 'spring/bank/chart.svg']
		});
	});
	it('finds a file whose name is written in other capitals', async () => {
		const { found } = await read(manifest(resource('', 'type="imsqti_item_xmlv2p1" href="A.XML"')), {
			'a.xml': item('a')
		});
		expect(found.resources.at(0).file).toBe('a.xml');
	});
	it('takes its first file where it names none of its own', async () => {
		const { found } = await read(manifest(resource('', 'type="imsqti_item_xmlv2p1"')));
		expect(found.resources.at(0).file).toBe('a.xml');
	});
	it('that is damaged says where, and keeps what stands before', async () => {
		const { found, told } = await read(
			manifest(resource('')).replace(
				'</resources>',
				'<resource identifier="X" type="y"><file href="b.xml"></resources>'
			)
		);
		expect(found.resources.at(0).file).toBe('a.xml');
		expect(told[0]!.message).toMatch(/manifest is damaged in line 1/);
	});
	it('is that of the outermost folder where there are several', async () => {
		const container = await opened({
			'deep/inside/imsmanifest.xml': manifest(''),
			'deep/imsmanifest.xml': manifest('')
		});
		expect(findManifest(container)).toBe('deep/imsmanifest.xml');
		expect(findManifest(await opened({ 'a.xml': '<a/>' }))).toBeNull();
	});
});

describe('a package', () => {
	const qti21 = (files: string[]) =>
		manifest(
			head('QTIv2.1 Package') +
				`<resources>${files.map((file, at) => `<resource identifier="R${at}" type="imsqti_item_xmlv2p1" href="${file}"><file href="${file}"/></resource>`).join('')}</resources>`
		);
	it('is read in the order of its manifest, and what the manifest forgot comes behind', async () => {
		const found = await readAll(
			await opened({
				'a.xml': item('a'),
				'b.xml': item('b'),
				'c.xml': item('c'),
				'imsmanifest.xml': qti21(['c.xml', 'a.xml'])
			})
		);
		expect(found.questions.map((one) => one.identifier)).toEqual(['c', 'a', 'b']);
	});
	it('in an extra folder is read as if it stood at the top', async () => {
		const found = await readAll(
			await opened({ 'Export 7/imsmanifest.xml': qti21(['q/a.xml']), 'Export 7/q/a.xml': item('a') })
		);
		expect(found.questions.map((one) => one.source?.file)).toEqual(['Export 7/q/a.xml']);
	});
	it('names a file that it lists and does not hold', async () => {
		const found = await readAll(await opened({ 'imsmanifest.xml': qti21(['a.xml', 'gone.xml']), 'a.xml': item('a') }));
		expect(found.questions).toHaveLength(1);
		expect(found.reports.map(({ rule, message }) => `${rule}: ${message}`).join()).toMatch(
			/missing-file: .*“gone\.xml”/
		);
	});
	it.each([
		['of another version than its manifest says', 'http://www.imsglobal.org/xsd/imsqti_v2p2'],
		['without a namespace that is known', 'http://gullhaven.example/ours'],
		['of the first drafts', 'http://www.imsglobal.org/xsd/imsqti_v2p0']
	])('with an item %s is read all the same', async (_, namespace) => {
		const found = await readAll(await opened({ 'imsmanifest.xml': qti21(['a.xml']), 'a.xml': item('a', namespace) }));
		expect(found.questions.map((one) => one.kind)).toEqual(['information']);
	});
	it('with QTI 1.2 beside QTI 2.1 gives the questions of both', async () => {
		const found = await readAll(
			await opened({
				'imsmanifest.xml': qti21(['a.xml']),
				'a.xml': item('a'),
				'old.xml':
					'<questestinterop><item ident="old" title="old"><presentation><material><mattext>Old words.</mattext></material></presentation></item></questestinterop>'
			})
		);
		expect(found.questions.map((one) => [one.identifier, one.source?.format])).toEqual([
			['a', 'qti21'],
			['old', 'qti12']
		]);
	});
	it('within a package is opened, and its files keep their way through both', async () => {
		const inner = zipped({ 'imsmanifest.xml': qti21(['a.xml']), 'a.xml': item('a') });
		const found = await readAll(await opened({ 'week 1.zip': inner, 'week 2.zip': inner }));
		expect(found.questions.map((one) => one.source?.file)).toEqual(['week 1.zip!/a.xml', 'week 2.zip!/a.xml']);
	});
	it('within a package within a package within a package is named, and not opened', async () => {
		const deepest = zipped({ 'a.xml': item('a') });
		const found = await readAll(
			await opened({ '1.zip': zipped({ '2.zip': zipped({ '3.zip': deepest, 'b.xml': item('b') }) }) })
		);
		expect(found.questions.map((one) => one.identifier)).toEqual(['b']);
		expect(found.reports.map((report) => report.rule)).toContain('nested-too-deep');
	});
	it('whose items lie in folders, with nothing else to tell them apart, has the folders as categories', async () => {
		const found = await readAll(
			await opened({
				'imsmanifest.xml': qti21(['bank/Tides/a.xml', 'bank/Knots/Bends/b.xml']),
				'bank/Tides/a.xml': item('a'),
				'bank/Knots/Bends/b.xml': item('b')
			})
		);
		expect(found.questions.map((one) => one.category)).toEqual([['Tides'], ['Knots', 'Bends']]);
	});
});
