import { describe, expect, it } from 'vitest';
import { checkQuestion } from '../checks/one';
import { plainText } from '../markup/text';
import { isChoice, type Question, type UnreadableQuestion } from '../kinds';
import { opened, readAll, readBare } from '../test-support/packages';
import { essay } from '../test-support/questions';
import { back, written } from '../test-support/written';
import { writtenFormats } from '.';
import { mendTools } from './mend-tools';
import { readAgain } from './read-again';

const item12 = (name: string, stem: string) =>
	`<item ident="${name}" title="Lights ${name}">\n<presentation><material><mattext texttype="text/html">${stem}</mattext></material><response_lid ident="R"><render_choice><response_label ident="A"><material><mattext>Red</mattext></material></response_label><response_label ident="B"><material><mattext>Green</mattext></material></response_label></render_choice></response_lid></presentation><resprocessing><outcomes><decvar maxvalue="2"/></outcomes><respcondition><conditionvar><varequal respident="R">A</varequal></conditionvar><setvar action="Set">2</setvar></respcondition></resprocessing></item>`;
const paper = (items: string[]) =>
	`<questestinterop><assessment ident="P" title="Paper"><section ident="S" title="Port hand">${items.slice(0, 2).join('\n')}</section>\n<section ident="T" title="Starboard hand">${items.slice(2).join('\n')}</section></assessment></questestinterop>`;

const item2 = (name: string, stem: string) =>
	`<?xml version="1.0" encoding="UTF-8"?>\n<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="${name}" title="Lights ${name}" adaptive="false" timeDependent="false"><responseDeclaration identifier="RESPONSE" cardinality="single" baseType="identifier"><correctResponse><value>A</value></correctResponse></responseDeclaration><outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/><outcomeDeclaration identifier="MAXSCORE" cardinality="single" baseType="float"><defaultValue><value>2</value></defaultValue></outcomeDeclaration>\n<itemBody><div>${stem}</div><choiceInteraction responseIdentifier="RESPONSE" shuffle="true" maxChoices="1"><simpleChoice identifier="A">Red</simpleChoice><simpleChoice identifier="B">Green</simpleChoice></choiceInteraction></itemBody><responseProcessing template="http://www.imsglobal.org/question/qti_v2p1/rptemplates/match_correct"/></assessmentItem>`;

/** Ways in which people and programs break markup, each with the words that have to be there once it is mended. */
const broken: [string, string, string][] = [
	['an unclosed tag', '<p>Which <b>light is to port?</p>', 'Which light is to port?'],
	['a bare ampersand', '<p>Port & starboard: which is which?</p>', 'Port & starboard: which is which?'],
	['a bare less-than sign', '<p>Which light, if d < 5 M?</p>', 'Which light, if d < 5 M?'],
	['crossed tags', '<p><b>Which <i>light</b> is</i> to port?</p>', 'Which light is to port?'],
	['an unquoted attribute', '<p class=stem>Which light?</p>', 'Which light?'],
	['a break of HTML', '<p>Which<br>light?</p>', 'Which light?'],
	['a comment that never ends', '<p>Which light?</p><!-- draft', 'Which light? <!-- draft']
];

const mended = (question: Question | undefined): Question => {
	expect(question).toMatchObject({ kind: 'unreadable' });
	return readAgain(question as UnreadableQuestion)!;
};

describe.each(broken)('an item with %s', (_, stem, words) => {
	it('counts in QTI 1.2, and those before and after it are read in their own sections', async () => {
		const items = ['1', '2', '3', '4'].map((name) =>
			item12(name, name === '2' ? `<div>${stem}</div>` : '<p>Which?</p>')
		);
		const found = await readBare('paper.xml', paper(items));
		expect(found.questions.map(({ title, kind, category }) => [title, kind, category.join('/')])).toEqual([
			['Lights 1', 'multiple-choice', 'Port hand'],
			['Lights 2', 'unreadable', 'Port hand'],
			['Lights 3', 'multiple-choice', 'Starboard hand'],
			['Lights 4', 'multiple-choice', 'Starboard hand']
		]);
		expect(found.quizzes[0]!.parts.map((part) => part.questions.length)).toEqual([2, 2]);
		expect(found.fragments[1]).toContain(stem.slice(0, 20));
		expect(found.questions[1]!.source).toMatchObject({ line: found.questions[1]!.source!.line, identifier: '2' });
		const again = mended(found.questions[1]);
		expect(again).toMatchObject({ kind: 'multiple-choice', title: 'Lights 2', points: 2, category: ['Port hand'] });
		expect(plainText(again.stem)).toBe(words);
		expect(isChoice(again) && again.options.map((option) => [plainText(option.text), option.credit])).toEqual([
			['Red', 1],
			['Green', 0]
		]);
	});
	it('counts in QTI 2.1, with its files, and is read once it is mended', async () => {
		const picture = '<img src="pictures/buoy.svg" alt="a buoy"/>';
		const files = {
			'a/one.xml': item2('1', '<p>Which?</p>'),
			'a/two.xml': item2('2', `${picture}${stem}`),
			'a/three.xml': item2('3', '<p>Which?</p>'),
			'a/pictures/buoy.svg': '<svg/>'
		};
		const found = await readAll(await opened(files));
		expect(found.questions.map(({ title, kind }) => [title, kind])).toContainEqual(['Lights 2', 'unreadable']);
		expect(found.questions).toHaveLength(3);
		const kept = found.questions.find((question) => question.kind === 'unreadable');
		expect(kept!.attachments).toMatchObject([{ name: 'a/pictures/buoy.svg', missing: false }]);
		const again = mended(kept);
		expect(plainText(again.stem)).toContain(words);
		expect(again.stem).toContain('media:a/pictures/buoy.svg');
		expect(again).toMatchObject({ kind: 'multiple-choice', points: 2, attachments: kept!.attachments });
	});
});

describe('a question that is not well-formed', () => {
	it('has one snag, which names the line, and can be mended', async () => {
		const found = await readBare('a.xml', item2('1', '<p>Port &\nstarboard</p>'));
		const [question] = found.questions;
		const snags = [...found.about.values()].flat().concat(checkQuestion(question!));
		expect(snags).toMatchObject([{ rule: 'unreadable', severity: 'broken', place: { file: 'a.xml', line: 3 } }]);
	});
	it('of ours is kept, called by its title, and read once it is mended', async () => {
		const xml = Buffer.from(
			await written(
				writtenFormats.find((one) => one.name === 'xml')!,
				[essay({ title: 'One' }), essay({ title: 'Two', stem: '<p>Say what you know.</p>' })]
			)
		).toString();
		const { found } = await back(
			Buffer.from(xml.replace('<stem>&lt;p&gt;Say what', '<stem>&lt;p&gt;Say & what')),
			'a.xml'
		);
		expect(found.questions.map(({ title, kind }) => [title, kind])).toEqual([
			['One', 'essay'],
			['Two', 'unreadable']
		]);
		expect(plainText(mended(found.questions[1]).stem)).toBe('Say & what you know.');
	});
	it('is written in no standard format, so that what is written stays valid, and in ours as it came', async () => {
		const { questions } = await readBare('a.xml', item2('x', '<p>Port & starboard</p>'));
		const [damaged] = questions;
		for (const format of writtenFormats) {
			const loss = format.loss(damaged!);
			const ours = ['json', 'xml', 'archive'].includes(format.name);
			expect([format.name, loss.outcome]).toEqual([format.name, ours ? 'kept' : 'lost']);
			const { found } = await back(await written(format, [essay({}), damaged!]), `package${format.ending}`);
			expect(found.questions).toHaveLength(ours ? 2 : 1);
			if (!ours) continue;
			expect(found.questions[1]).toMatchObject({ kind: 'unreadable', title: damaged!.title });
			expect((found.questions[1] as UnreadableQuestion).fragment).toBe((damaged as UnreadableQuestion).fragment);
			expect(plainText(mended(found.questions[1]).stem)).toBe('Port & starboard');
		}
	});
	it('stays as it is where nothing can be made of it', async () => {
		const { questions } = await readBare(
			'a.xml',
			'<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="X" title="Odd"><itemBody><drawingInteraction responseIdentifier="R"><</itemBody></assessmentItem>'
		);
		expect(questions).toMatchObject([{ kind: 'unreadable', title: 'Odd' }]);
		expect(mendTools.readAgain(questions[0] as UnreadableQuestion)).toBeNull();
	});
});
