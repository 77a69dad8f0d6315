import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { runsOf } from '../../test-support/runs';
import { opened, readAll, type Files } from '../../test-support/packages';
import { partsFound } from '../../test-support/quizzes';

/** A part of a quiz as somebody has it in mind: its questions are numbered through all parts. */
interface Part {
	title: string;
	count: number;
	draw: number | null;
	shuffle: boolean;
	held: 'within' | 'by reference' | 'in a bank' | 'in a bank elsewhere';
}

/** How a program writes an assessment; every field is one habit that the standard leaves open. */
interface Habits {
	prefix: string;
	root: boolean;
	manifest: boolean;
	bankLast: boolean;
	sequential: string;
	random: string;
	same: boolean;
}

const anyParts = fc.array(
	fc
		.record({
			title: fc.constantFrom('Lights', 'Sounds & shapes', 'Knots'),
			count: fc.integer({ min: 1, max: 4 }),
			share: fc.constantFrom(null, 0.5),
			shuffle: fc.boolean(),
			held: fc.constantFrom<Part['held'][]>('within', 'by reference', 'in a bank', 'in a bank elsewhere')
		})
		.map(({ share, ...part }): Part => ({ ...part, draw: share && Math.max(1, Math.floor(part.count * share)) })),
	{ minLength: 1, maxLength: 4 }
);
const anyHabits: fc.Arbitrary<Habits> = fc.record({
	prefix: fc.constantFrom('', '', 'qti:'),
	root: fc.boolean(),
	manifest: fc.boolean(),
	bankLast: fc.boolean(),
	sequential: fc.constantFrom('Sequential', 'sequential', 'Fixed'),
	random: fc.constantFrom('Random', 'random'),
	same: fc.boolean()
});

function packageOf(parts: Part[], habits: Habits): Files {
	const files: Files = {};
	const { prefix } = habits;
	const document = (inner: string) => {
		const xml = `<questestinterop>${inner}</questestinterop>`;
		const tagged = prefix ? xml.replace(/<(\/?)/g, `<$1${prefix}`) : xml;
		return prefix
			? tagged.replace('questestinterop', 'questestinterop xmlns:qti="http://www.imsglobal.org/xsd/ims_qtiasiv1p2"')
			: tagged;
	};
	let number = 0;
	let loose = '';
	let banks = '';
	const sections = parts.map(({ title, count, draw, shuffle, held }, at) => {
		const idents = Array.from({ length: count }, () => `I${(number += 1)}`);
		const items = idents
			.map(
				(ident) =>
					`<item ident="${ident}" title="Item ${ident}"><presentation><material><mattext>Which is ${ident}?</mattext></material><response_lid ident="R"><render_choice><response_label ident="A"><material><mattext>One</mattext></material></response_label><response_label ident="B"><material><mattext>Two</mattext></material></response_label></render_choice></response_lid></presentation><resprocessing><outcomes><decvar/></outcomes><respcondition><conditionvar><varequal respident="R">A</varequal></conditionvar><setvar>1</setvar></respcondition></resprocessing></item>`
			)
			.join('');
		const bank = `<objectbank ident="BANK${at}">${items}</objectbank>`;
		if (held === 'by reference') loose += items;
		if (held === 'in a bank') banks += bank;
		if (held === 'in a bank elsewhere') files[`bank-${at}.xml`] = document(bank);
		const source = held.startsWith('in a bank') ? `<sourcebank_ref>BANK${at}</sourcebank_ref>` : '';
		const selected = draw === null ? '' : `<selection_number>${draw}</selection_number>`;
		const ordering = `<selection_ordering><selection>${source}${selected}</selection><order order_type="${shuffle ? habits.random : habits.sequential}"/></selection_ordering>`;
		const inside =
			held === 'within'
				? items
				: held === 'by reference'
					? idents.map((one) => `<itemref linkrefid="${one}"/>`).join('')
					: '';
		return `<section ident="S${at}" title="${title.replace('&', '&amp;')}">${ordering}${inside}</section>`;
	});
	const inner = habits.root ? `<section ident="root_section">${sections.join('')}</section>` : sections.join('');
	const assessment = `<assessment ident="Q" title="Harbour paper">${inner}</assessment>`;
	const bankOf = banks;
	if (habits.same)
		files['paper.xml'] = document(
			(habits.bankLast ? [assessment, bankOf, loose] : [bankOf, loose, assessment]).join('')
		);
	else {
		files['paper.xml'] = document(assessment);
		if (bankOf || loose) files[habits.bankLast ? 'z-bank.xml' : 'a-bank.xml'] = document(bankOf + loose);
	}
	if (habits.manifest)
		files['imsmanifest.xml'] = `<manifest identifier="M"><organizations/><resources>${Object.keys(files)
			.map(
				(path, at) =>
					`<resource identifier="R${at}" type="imsqti_xmlv1p1" href="${path}"><file href="${path}"/></resource>`
			)
			.join('')}</resources></manifest>`;
	return files;
}

const runs = runsOf('ASSESSMENT', 100);

describe('an assessment of QTI 1.2 written with any mixture of what the standard leaves open', () => {
	it('is a quiz with the parts that were meant', () =>
		fc.assert(
			fc.asyncProperty(anyParts, anyHabits, async (parts, habits) => {
				const files = packageOf(parts, habits);
				const read = await readAll(await opened(files));
				let number = 0;
				const meant = parts.map(({ title, draw, shuffle, count }) => ({
					title,
					draw,
					shuffle,
					items: Array.from({ length: count }, () => `Item I${(number += 1)}`)
				}));
				expect({ files, found: partsFound(read) }).toMatchObject({ files, found: [meant] });
				expect({ files, count: read.questions.length, told: read.reports }).toEqual({ files, count: number, told: [] });
			}),
			runs
		));
});
