import { readFileSync } from 'node:fs';
import Ajv from 'ajv/dist/2020';
import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyQuestion } from '../test-support/arbitrary';
import { questionJsonSchema } from './json-schema';
import type { Question } from '.';
import { parseQuestion } from './schema';

const valid = new Ajv({ allowUnionTypes: true }).compile(questionJsonSchema());
const accepted = (value: unknown) => {
	try {
		parseQuestion(value);
		return true;
	} catch {
		return false;
	}
};

describe('the published JSON Schema', () => {
	it('is the one in docs', () => {
		const published = readFileSync(new URL('../../docs/question.schema.json', import.meta.url), 'utf8');
		expect(JSON.parse(published)).toEqual(questionJsonSchema());
	});
	it('takes every question that the model allows', () => {
		fc.assert(
			fc.property(anyQuestion, (question) => {
				const value: unknown = JSON.parse(JSON.stringify(question));
				expect({ valid: valid(value), errors: valid.errors, accepted: accepted(value) }).toMatchObject({
					valid: true,
					accepted: true
				});
			}),
			{ numRuns: 300 }
		);
	});
	it('refuses what the program refuses: a part that is missing, or is of another type', () => {
		fc.assert(
			fc.property(
				anyQuestion,
				fc.nat(),
				fc.constantFrom('missing', 'a number', 'a text'),
				(question: Question, at, how) => {
					const value = JSON.parse(JSON.stringify(question)) as Record<string, unknown>;
					const names = Object.keys(value).filter(
						(name) => !['difficulty', 'stimulus', 'unit', 'slider', 'source'].includes(name)
					);
					const name = names[at % names.length]!;
					if (how === 'missing') Reflect.deleteProperty(value, name);
					else
						value[name] =
							how === 'a number' ? { wrong: 1 } : 'wrong'.repeat(typeof value[name] === 'string' ? 0 : 1) || 7;
					// a language may be any text or none, and a text is a text
					fc.pre(
						!(name === 'language' && typeof value[name] === 'string') &&
							!(name === 'accepts' && typeof value[name] === 'string')
					);
					expect({ name, how, schema: valid(value) }).toEqual({ name, how, schema: accepted(value) });
				}
			),
			{ numRuns: 400 }
		);
	});
});
