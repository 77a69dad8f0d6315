import { describe, expect, it } from 'vitest';
import { isChoice, type Question } from '../../kinds';
import { score } from '../../scoring/score';
import { readBare } from '../../test-support/packages';

const id = (value: string) => `<baseValue baseType="identifier">${value}</baseValue>`;
const float = (value: number) => `<baseValue baseType="float">${value}</baseValue>`;
const answer = '<variable identifier="RESPONSE"/>';
const set = (name: string, value: string) => `<setOutcomeValue identifier="${name}">${value}</setOutcomeValue>`;
const modal = (name: string, text: string, how = 'show', outcome = 'FEEDBACK') =>
	`<modalFeedback outcomeIdentifier="${outcome}" identifier="${name}" showHide="${how}">${text}</modalFeedback>`;
/** Right earns a point and shows "well", anything else shows "again". */
const rightOrWrong = `<responseCondition><responseIf><match>${answer}<correct identifier="RESPONSE"/></match>${set('SCORE', float(1))}${set('FEEDBACK', id('well'))}</responseIf><responseElse>${set('FEEDBACK', id('again'))}</responseElse></responseCondition>`;

const item = (correct: string[], interaction: string, rules: string, feedback: string, cardinality = 'single') =>
	`<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="F" title="Feedback" adaptive="false" timeDependent="false"><responseDeclaration identifier="RESPONSE" cardinality="${cardinality}" baseType="identifier"><correctResponse>${correct.map((one) => `<value>${one}</value>`).join('')}</correctResponse></responseDeclaration><outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/><outcomeDeclaration identifier="FEEDBACK" cardinality="single" baseType="identifier"/><itemBody>${interaction}</itemBody><responseProcessing>${rules}</responseProcessing>${feedback}</assessmentItem>`;
const options = (most: number, ...inner: string[]) =>
	`<choiceInteraction responseIdentifier="RESPONSE" shuffle="false" maxChoices="${most}"><prompt>Which holds?</prompt>${inner.map((one, at) => `<simpleChoice identifier="${'ABC'[at]}">${one}</simpleChoice>`).join('')}</choiceInteraction>`;
const plain = options(1, 'Bowline', 'Reef', 'Noose');
const read = async (xml: string): Promise<Question> => (await readBare('f.xml', xml)).questions[0]!;
const ofOptions = (question: Question) =>
	isChoice(question) ? question.options.map((option) => option.feedback ?? '') : [];

describe('feedback of an item (QTI 2.1, section 9)', () => {
	it('belongs to the right answer or to the wrong ones, by the answers that show it', async () => {
		const { feedback } = await read(
			item(['A'], plain, rightOrWrong, modal('well', 'It holds.') + modal('again', 'It slips.'))
		);
		expect(feedback).toEqual({ correct: 'It holds.', incorrect: 'It slips.' });
	});
	it('that is hidden for an answer belongs to the others', async () => {
		const { feedback } = await read(item(['A'], plain, rightOrWrong, modal('well', 'Look again.', 'hide')));
		expect(feedback).toEqual({ incorrect: 'Look again.' });
	});
	it('that every answer shows is that of the question', async () => {
		const always = rightOrWrong + set('FEEDBACK', id('all'));
		expect((await read(item(['A'], plain, always, modal('all', 'Tie it twice.')))).feedback).toEqual({
			general: 'Tie it twice.'
		});
	});
	it('that one option shows is that of the option', async () => {
		const rules = `${rightOrWrong}<responseCondition><responseIf><match>${answer}${id('C')}</match>${set('FEEDBACK', id('noose'))}</responseIf></responseCondition>`;
		const question = await read(item(['A'], plain, rules, modal('noose', 'It tightens.')));
		expect(ofOptions(question)).toEqual(['', '', 'It tightens.']);
	});
	it('that stands in an option is that of the option, and no part of its text', async () => {
		const inline =
			'<feedbackInline outcomeIdentifier="FEEDBACK" identifier="well" showHide="show">Yes.</feedbackInline>';
		const question = await read(item(['A'], options(1, `Bowline${inline}`, 'Reef'), rightOrWrong, ''));
		expect(ofOptions(question)).toEqual(['Yes.', '']);
		expect(isChoice(question) && question.options[0]!.text).toBe('Bowline');
	});
	it('that stands in the text is placed by the answers that show it', async () => {
		const block = `<feedbackBlock outcomeIdentifier="FEEDBACK" identifier="well" showHide="show"><p>It holds.</p></feedbackBlock>`;
		const question = await read(item(['A'], plain + block, rightOrWrong, ''));
		expect(question.feedback).toEqual({ correct: 'It holds.' });
		expect(question.stem).toBe('Which holds?');
	});
	it('for half of the points is that of an answer which is partly right', async () => {
		const each = ['A', 'C']
			.map(
				(one) =>
					`<responseCondition><responseIf><member>${id(one)}${answer}</member>${set('SCORE', `<sum><variable identifier="SCORE"/>${float(1)}</sum>`)}</responseIf></responseCondition>`
			)
			.join('');
		const shown = `<responseCondition><responseIf><equal toleranceMode="exact"><variable identifier="SCORE"/>${float(2)}</equal>${set('FEEDBACK', id('all-of-it'))}</responseIf><responseElseIf><gt><variable identifier="SCORE"/>${float(0)}</gt>${set('FEEDBACK', id('half'))}</responseElseIf><responseElse>${set('FEEDBACK', id('none'))}</responseElse></responseCondition>`;
		const question = await read(
			item(
				['A', 'C'],
				options(0, 'Bowline', 'Reef', 'Figure of eight'),
				each + shown,
				modal('all-of-it', 'Both.') + modal('half', 'One more.') + modal('none', 'Neither.'),
				'multiple'
			)
		);
		expect(question.feedback.correct).toBe('Both.');
		expect(question.feedback.partly).toBe('One more.');
		const told = (...options: string[]) => score(question, { options }).feedback.join(' ');
		expect(told('A', 'C')).toContain('Both.');
		expect(told('A')).toContain('One more.');
		expect(told('B')).toContain('Neither.');
	});
	it('that no answer shows is kept beside the question', async () => {
		const question = await read(item(['A'], plain, rightOrWrong, modal('never', 'Nobody reads this.')));
		expect(question.feedback).toEqual({});
		expect(question.metadata).toContainEqual({ name: 'feedback never', value: 'Nobody reads this.' });
	});
	it('of several texts for one answer is told in full', async () => {
		const question = await read(
			item(['A'], plain, rightOrWrong, modal('well', '<p>It holds.</p>') + modal('again', 'Well seen.', 'hide'))
		);
		const told = (option: string) => score(question, { options: [option] }).feedback.join(' ');
		expect(told('A')).toContain('It holds.');
		expect(told('A')).toContain('Well seen.');
		expect(told('B')).toBe('');
	});
});
