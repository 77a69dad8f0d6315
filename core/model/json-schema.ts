import { kinds, type Kind } from './question';

type Json = Record<string, unknown>;

const text: Json = { type: 'string' };
const truth: Json = { type: 'boolean' };
const number: Json = { type: 'number' };
const credit: Json = { type: 'number', minimum: -1, maximum: 1 };
const maybe = (type: string): Json => ({ type: [type, 'null'] });
const list = (items: Json): Json => ({ type: 'array', items });
const record = (properties: Json, optional: string[] = []): Json => ({
	type: 'object',
	properties,
	required: Object.keys(properties).filter((name) => !optional.includes(name))
});

const bounds = record({ lower: maybe('number'), upper: maybe('number') });
const combination: Json = { enum: ['sum', 'all'] };
const acceptedTexts = list(
	record({ text, credit, caseSensitive: truth, match: { enum: ['contains', 'pattern'] } }, ['match'])
);
const acceptedNumbers = list({
	anyOf: [
		record({ value: number, tolerance: { type: 'number', minimum: 0 }, credit }),
		record({
			min: maybe('number'),
			max: maybe('number'),
			includesMin: truth,
			includesMax: truth,
			credit
		})
	]
});
const sides = list(record({ identifier: text, text, uses: maybe('number') }));
const pairs = list(record({ left: text, right: text, credit }));
const picture = record({ name: text, width: maybe('number'), height: maybe('number'), alt: text });
const shape: Json = {
	identifier: text,
	shape: { enum: ['rect', 'circle', 'ellipse', 'poly', 'default'] },
	coordinates: list(number)
};
const form = (name: string, more: Json): Json => record({ form: { const: name }, ...more });
const share: Json = { type: 'number', minimum: 0, maximum: 1 };
const blank = (name: string, more: Json): Json => record({ identifier: text, share, form: { const: name }, ...more });

const choice: Json = {
	options: list(record({ identifier: text, text, credit, feedback: text, pinned: truth }, ['feedback'])),
	shuffle: maybe('boolean'),
	combination,
	bounds,
	lostKeys: list(text)
};

const parts: Record<Kind, { properties: Json; optional?: string[] }> = {
	'true-false': { properties: choice },
	'multiple-choice': { properties: choice },
	'multiple-response': { properties: choice },
	'short-answer': { properties: { accepted: acceptedTexts } },
	numeric: {
		properties: {
			accepted: acceptedNumbers,
			whole: truth,
			unit: text,
			slider: record({ lower: number, upper: number, step: maybe('number') })
		},
		optional: ['unit', 'slider']
	},
	'fill-blanks': {
		properties: {
			blanks: list({
				anyOf: [
					blank('text', { accepted: acceptedTexts }),
					blank('number', { accepted: acceptedNumbers, whole: truth }),
					blank('list', {
						entries: list(record({ identifier: text, text, credit })),
						several: truth,
						shuffle: maybe('boolean')
					}),
					blank('word', { words: list(record({ word: text, credit })) }),
					blank('open', {})
				]
			}),
			bank: sides,
			combination,
			shuffle: maybe('boolean')
		}
	},
	matching: { properties: { left: sides, right: sides, pairs, combination, bounds, shuffle: maybe('boolean') } },
	ordering: {
		properties: {
			items: list(record({ identifier: text, text })),
			presented: list(text),
			rule: { enum: ['all', 'position'] },
			shuffle: maybe('boolean')
		}
	},
	essay: { properties: {} },
	'file-upload': { properties: { accepts: maybe('string') } },
	hotspot: {
		properties: {
			picture,
			shapes: list(record({ ...shape, credit })),
			mode: { enum: ['areas', 'points'] },
			picks: { type: 'number', minimum: 0 },
			outside: credit,
			combination,
			bounds
		}
	},
	'label-image': {
		properties: {
			picture,
			labels: sides,
			targets: list(record({ ...shape, uses: maybe('number') })),
			pairs,
			combination,
			bounds
		}
	},
	calculated: {
		properties: {
			variables: list(
				record({
					name: text,
					whole: truth,
					decimals: maybe('number'),
					values: {
						anyOf: [
							form('range', { min: number, max: number, step: maybe('number') }),
							form('set', { values: list(number) }),
							form('expression', { expression: text })
						]
					}
				})
			),
			constraints: list(text),
			expression: text,
			tolerance: record({ mode: { enum: ['absolute', 'relative'] }, value: { type: 'number', minimum: 0 } }),
			whole: truth,
			unit: text
		},
		optional: ['unit']
	},
	information: { properties: {} },
	unreadable: { properties: { reason: text, fragment: text, faultLine: number }, optional: ['faultLine'] }
};

const common: Json = {
	identifier: text,
	title: text,
	stem: text,
	points: maybe('number'),
	category: list(text),
	tags: list(text),
	language: maybe('string'),
	feedback: record({ general: text, correct: text, incorrect: text, partly: text }, [
		'general',
		'correct',
		'incorrect',
		'partly'
	]),
	hints: list(text),
	difficulty: text,
	stimulus: record({ identifier: text, title: text, content: text }),
	attachments: list(record({ name: text, mediaType: text, hash: maybe('string'), missing: truth })),
	metadata: list(record({ name: text, value: text })),
	removed: list(text),
	source: {
		anyOf: [{ type: 'null' }, record({ format: text, file: text, line: number, endLine: number, identifier: text })]
	}
};

/** The published JSON Schema of a question (JSON Schema draft 2020-12), which docs/question.schema.json repeats. */
export function questionJsonSchema(): Json {
	return {
		$schema: 'https://json-schema.org/draft/2020-12/schema',
		$id: 'urn:yarn-barrow:question:1',
		title: 'A question',
		oneOf: kinds.map((kind) => {
			const { properties, optional = [] } = parts[kind];
			return record({ kind: { const: kind }, ...common, ...properties }, ['difficulty', 'stimulus', ...optional]);
		})
	};
}
