import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { runsOf } from '../../test-support/runs';
import { opened, readAll, type Files } from '../../test-support/packages';
import { partsFound } from '../../test-support/quizzes';

/** A part of a quiz as somebody has it in mind. */
interface Part {
	title: string;
	items: number[];
	draw: number | null;
	shuffle: boolean;
	weight: number | null;
}

/** How a program writes a test; every field is one habit that the standard leaves open. */
interface Habits {
	three: boolean;
	folder: string;
	testFolder: string;
	wrapped: boolean;
	apart: boolean;
	parts: 'one' | 'each';
	manifest: boolean;
	encoded: boolean;
	processing: boolean;
}

const titles = ['Lights', 'Sounds & shapes', 'Steering', 'Knots'];
const anyParts = fc.array(
	fc
		.record({
			title: fc.constantFrom(...titles),
			items: fc.uniqueArray(fc.nat({ max: 5 }), { minLength: 1, maxLength: 5 }),
			share: fc.constantFrom(null, 0.5),
			shuffle: fc.boolean(),
			weight: fc.constantFrom(null, null, 2, 0.5)
		})
		.map(({ share, ...part }): Part => ({
			...part,
			draw: share && Math.max(1, Math.floor(part.items.length * share))
		})),
	{ minLength: 1, maxLength: 4 }
);
const anyHabits: fc.Arbitrary<Habits> = fc.record({
	three: fc.boolean(),
	folder: fc.constantFrom('', 'items/', 'bank of items/'),
	testFolder: fc.constantFrom('', 'tests/'),
	wrapped: fc.boolean(),
	apart: fc.boolean(),
	parts: fc.constantFrom<Habits['parts'][]>('one', 'each'),
	manifest: fc.boolean(),
	encoded: fc.boolean(),
	processing: fc.boolean()
});

const kebab = (name: string) => name.replace(/[A-Z]/g, (sign) => `-${sign.toLowerCase()}`);
const named = (xml: string, three: boolean) =>
	three
		? xml.replace(/<(\/?)([a-zA-Z]+)([^<>]*)>/g, (_, close: string, name: string, rest: string) =>
				name === 'p'
					? `<${close}p>`
					: `<${close}qti-${kebab(name)}${rest.replace(/ ([a-z]+[A-Z][a-zA-Z]*)=/g, (__, one: string) => ` ${kebab(one)}=`)}>`
			)
		: xml;

function packageOf(parts: Part[], habits: Habits): Files {
	const { folder, testFolder, three } = habits;
	const item = (at: number) => `${folder}item ${at}.xml`;
	const address = (path: string) => {
		const up = testFolder ? `../${path}` : path;
		return habits.encoded ? up.replace(/ /g, '%20') : up;
	};
	const files: Files = {};
	for (let at = 0; at < 6; at += 1)
		files[item(at)] = named(
			`<assessmentItem identifier="I${at}" title="Item ${at}" adaptive="false" timeDependent="false"><responseDeclaration identifier="RESPONSE" cardinality="single" baseType="identifier"><correctResponse><value>A</value></correctResponse></responseDeclaration><outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/><itemBody><p>Which is ${at}?</p><choiceInteraction responseIdentifier="RESPONSE" maxChoices="1"><simpleChoice identifier="A">One</simpleChoice><simpleChoice identifier="B">Two</simpleChoice></choiceInteraction></itemBody><responseProcessing template="match_correct"/></assessmentItem>`,
			three
		);
	const section = ({ title, items, draw, shuffle, weight }: Part, at: number) =>
		`<assessmentSection identifier="S${at}" title="${title.replace('&', '&amp;')}" visible="true">${draw === null ? '' : `<selection select="${draw}"/>`}<ordering shuffle="${shuffle}"/>${items.map((one) => `<assessmentItemRef identifier="R${at}-${one}" href="${address(item(one))}">${weight === null ? '' : `<weight identifier="W" value="${weight}"/>`}</assessmentItemRef>`).join('')}</assessmentSection>`;
	const sections = parts.map((part, at) => {
		const xml = section(part, at);
		if (!habits.apart || at % 2) return xml;
		files[`${testFolder}section-${at}.xml`] = named(xml, three);
		return `<assessmentSectionRef identifier="S${at}" href="section-${at}.xml"/>`;
	});
	const around = (inner: string) =>
		habits.wrapped
			? `<assessmentSection identifier="ALL" title="All" visible="false">${inner}</assessmentSection>`
			: inner;
	const testPart = (inner: string, at: number) =>
		`<testPart identifier="P${at}" navigationMode="nonlinear" submissionMode="individual">${inner}</testPart>`;
	const body =
		habits.parts === 'one'
			? testPart(around(sections.join('')), 0)
			: sections.map((one, at) => testPart(around(one), at)).join('');
	const processing = habits.processing
		? '<outcomeProcessing><setOutcomeValue identifier="SCORE"><sum><testVariables variableIdentifier="SCORE" weightIdentifier="W"/></sum></setOutcomeValue></outcomeProcessing>'
		: '';
	files[`${testFolder}test.xml`] = named(
		`<assessmentTest identifier="T" title="Harbour test"><outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/>${body}${processing}</assessmentTest>`,
		three
	);
	if (habits.manifest) {
		const version = three ? 'v3p0' : 'v2p1';
		const resource = (id: string, kind: string, path: string) =>
			`<resource identifier="${id}" type="imsqti_${kind}_xml${version}" href="${path}"><file href="${path}"/></resource>`;
		files['imsmanifest.xml'] =
			`<manifest identifier="M"><organizations/><resources>${resource('T', 'test', `${testFolder}test.xml`)}${[0, 1, 2, 3, 4, 5].map((at) => resource(`I${at}`, 'item', item(at))).join('')}</resources></manifest>`;
	}
	return files;
}

const runs = runsOf('TEST', 100);

describe('a test of QTI 2 or 3 written with any mixture of what the standard leaves open', () => {
	it('is a quiz with the parts that were meant', () =>
		fc.assert(
			fc.asyncProperty(anyParts, anyHabits, async (parts, habits) => {
				const files = packageOf(parts, habits);
				const read = await readAll(await opened(files));
				const meant = parts.map(({ title, draw, shuffle, weight, items }) => ({
					title,
					draw,
					shuffle,
					pointsEach: weight,
					items: items.map((at) => `Item ${at}`)
				}));
				expect(read.quizzes.map((quiz) => quiz.title)).toEqual(['Harbour test']);
				expect({ files, found: partsFound(read) }).toMatchObject({ files, found: [meant] });
				expect({ files, count: read.questions.length, told: read.reports }).toEqual({ files, count: 6, told: [] });
			}),
			runs
		));
});
