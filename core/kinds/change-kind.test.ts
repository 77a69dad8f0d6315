import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyQuestion } from '../test-support/arbitrary';
import { blankQuestion, type MadeKind } from './blank';
import { changeKind } from './change-kind';
import { kinds, type ChoiceQuestion, type Question } from './index';
import { parseQuestion } from './schema';

const made = kinds.filter((kind): kind is MadeKind => kind !== 'unreadable');
const choice = (keys: number[]): Question => ({
	...(blankQuestion('multiple-response', 2, 'en') as ChoiceQuestion),
	stem: 'Which are cardinal points?',
	options: ['North', 'Quay', 'South'].map((text, at) => ({
		identifier: 'ABC'[at]!,
		text,
		credit: keys.includes(at) ? 1 / keys.length : 0,
		pinned: false
	}))
});

describe('a question as another kind', () => {
	it('is a question of that kind, keeps what all have, and is not changed itself', () => {
		fc.assert(
			fc.property(anyQuestion, fc.constantFrom(...made), (question, to) => {
				const before = JSON.stringify(question);
				const { question: changed } = changeKind(question, to);
				expect(changed.kind).toBe(to);
				expect(parseQuestion(JSON.parse(JSON.stringify(changed)))).toEqual(JSON.parse(JSON.stringify(changed)));
				expect([changed.identifier, changed.title, changed.tags, changed.feedback]).toEqual([
					question.identifier,
					question.title,
					question.tags,
					question.feedback
				]);
				expect(JSON.stringify(question)).toBe(before);
			})
		);
	});
	it('keeps options among choices, and says which key goes', () => {
		const { question, goes } = changeKind(choice([0, 2]), 'multiple-choice');
		expect(question).toMatchObject({
			options: [
				{ text: 'North', credit: 1 },
				{ text: 'Quay', credit: 0 },
				{ text: 'South', credit: 0 }
			]
		});
		expect(goes).toEqual(['“South” as a key']);
		expect(changeKind(choice([0]), 'multiple-choice').goes).toEqual([]);
	});
	it('makes keys of a choice accepted texts, and back', () => {
		const { question, goes } = changeKind(choice([0, 2]), 'short-answer');
		expect(question).toMatchObject({ accepted: [{ text: 'North' }, { text: 'South' }] });
		expect(goes).toEqual(['option “Quay”']);
		expect(changeKind(question, 'multiple-choice').question).toMatchObject({
			options: [
				{ text: 'North', credit: 1 },
				{ text: 'South', credit: 0 }
			]
		});
	});
	it('makes a short answer a number where it is one, and says what is none', () => {
		const short = {
			...blankQuestion('short-answer', 1, ''),
			accepted: [
				{ text: '4,5', credit: 1, caseSensitive: false },
				{ text: 'about four', credit: 0.5, caseSensitive: false }
			]
		} as Question;
		const { question, goes } = changeKind(short, 'numeric');
		expect(question).toMatchObject({ accepted: [{ value: 4.5, tolerance: 0, credit: 1 }] });
		expect(goes).toEqual(['answer “about four”']);
		expect(changeKind(question, 'short-answer').question).toMatchObject({ accepted: [{ text: '4.5' }] });
	});
	it('says that all goes where nothing can stay', () => {
		expect(changeKind(choice([0]), 'essay').goes[0]).toMatch(/all that makes it multiple response: option 1/);
	});
	it('has a blank at its end where it becomes one with blanks', () => {
		const { question } = changeKind(choice([0]), 'fill-blanks');
		expect(question.stem).toMatch(/cardinal points.*class="blank" id="B1"/);
		expect(question).toMatchObject({ blanks: [{ accepted: [{ text: 'North' }] }] });
	});
});
