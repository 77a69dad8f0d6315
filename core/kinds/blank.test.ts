import { describe, expect, it } from 'vitest';
import { checkQuestion } from '../checks/one';
import { blankQuestion, type MadeKind } from './blank';
import { kinds } from './index';
import { parseQuestion } from './schema';

const made = kinds.filter((kind): kind is MadeKind => kind !== 'unreadable');

describe('a new question', () => {
	it.each(made)('of the kind %s is one, with the points and language of its course', (kind) => {
		const question = blankQuestion(kind, 2, 'de');
		expect(parseQuestion(JSON.parse(JSON.stringify(question)))).toEqual(question);
		expect(question.points).toBe(kind === 'information' ? null : 2);
		expect(question.language).toBe('de');
		expect(blankQuestion(kind, null, '').language).toBeNull();
	});
	it('has snags that say what it lacks still', () => {
		expect(checkQuestion(blankQuestion('multiple-choice', 1, '')).map(({ rule }) => rule)).toContain('empty-stem');
	});
});
