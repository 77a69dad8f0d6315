import { describe, expect, it } from 'vitest';
import { opened, readAll } from '../../test-support/packages';

const bank =
	'<questestinterop><objectbank ident="B"><item ident="a" title="a"><presentation><material><matimage uri="../pictures/buoy.svg"/></material></presentation></item></objectbank></questestinterop>';
const manifest = (resources: string) =>
	`<manifest identifier="M"><metadata><schema>IMS Common Cartridge</schema><schemaversion>1.2.0</schemaversion></metadata><organizations/><resources>${resources}</resources></manifest>`;

describe('what a package holds beside questions', () => {
	it('is listed as not ours, with the type that the manifest gives it', async () => {
		const found = await readAll(
			await opened({
				'imsmanifest.xml': manifest(
					'<resource identifier="R1" type="imsqti_xmlv1p2/imscc_xmlv1p2/question-bank"><file href="bank/bank.xml"/></resource>' +
						'<resource identifier="R2" type="imswl_xmlv1p2"><file href="links/tides.xml"/></resource>' +
						'<resource identifier="R3" type="webcontent" href="notes/knots.html"><file href="notes/knots.html"/></resource>'
				),
				'bank/bank.xml': bank,
				'pictures/buoy.svg': '<svg xmlns="http://www.w3.org/2000/svg"/>',
				'links/tides.xml':
					'<webLink xmlns="http://www.imsglobal.org/xsd/imsccv1p2/imswl_v1p2"><title>Tide tables</title></webLink>',
				'notes/knots.html': '<p>Knots</p>',
				'__MACOSX/notes/._knots.html': 'x'
			})
		);
		expect(found.questions).toHaveLength(1);
		expect(found.events.flatMap((event) => (event.type === 'other' ? [event.other] : []))).toEqual([
			{ path: 'links/tides.xml', type: 'imswl_xmlv1p2' },
			{ path: 'notes/knots.html', type: 'webcontent' }
		]);
		const [report] = found.reports;
		expect(found.reports.map(({ rule }) => rule)).toEqual(['not-ours']);
		expect(report!.message).toContain('2 files that no question uses: “links/tides.xml”, “notes/knots.html”');
	});
});

describe('what a test asks for beside its questions', () => {
	it('is read where a quiz has a place for it, and else named, so that somebody can set it up by hand', async () => {
		const item =
			'<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="a" title="a" adaptive="false" timeDependent="false"><itemBody><p>Look out.</p></itemBody></assessmentItem>';
		const test =
			'<assessmentTest xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="t" title="Watch"><timeLimits maxTime="600"/><testPart identifier="p" navigationMode="linear" submissionMode="individual"><assessmentSection identifier="s" title="Bridge" visible="true"><rubricBlock view="candidate"><p>Answer <b>both</b>.</p></rubricBlock><assessmentItemRef identifier="a" href="a.xml"/></assessmentSection></testPart></assessmentTest>';
		const found = await readAll(await opened({ 'a.xml': item, 'test.xml': test }));
		expect(found.quizzes).toHaveLength(1);
		expect(found.reports.map(({ rule }) => rule)).toEqual(['quiz-rules']);
		expect(found.reports[0]!.message).toContain('one question after the other');
		expect(found.quizzes[0]!.settings).toEqual({ minutes: 10, instructions: 'Answer both.' });
	});
});
