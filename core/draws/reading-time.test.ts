import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { wordSet } from '../compare/near';
import { wordingOf } from '../compare/wording';
import type { Question } from '../kinds';
import { readBare } from '../test-support/packages';
import { secondsToRead, timesEach } from './reading-time';

const samples = new URL('../test-support/samples/', import.meta.url);
const countOf = (question: Question) => wordingOf(question).match(/[\p{L}\p{N}]+/gu)?.length ?? 0;

describe('the time that a question takes to be read', () => {
	it('goes by all its words, of which only the different ones are known', async () => {
		const found = await Promise.all(
			readdirSync(samples)
				.filter((name) => name.endsWith('.txt'))
				.map((name) => readBare(name, readFileSync(new URL(name, samples))))
		);
		const questions = found.flatMap((file) => file.questions).filter(({ kind }) => kind !== 'unreadable');
		expect(questions.length).toBeGreaterThan(20);
		const all = questions.reduce((sum, question) => sum + countOf(question), 0);
		const different = questions.reduce((sum, question) => sum + wordSet(wordingOf(question)).length, 0);
		expect(Math.abs(all / different - timesEach)).toBeLessThan(0.1);
	});
	it('is in seconds', () => {
		expect(secondsToRead(500)).toBe(180);
		expect(secondsToRead(0)).toBe(0);
	});
});
