import type { Schema, SchemaDescription, SchemaFieldDescription, SchemaObjectDescription } from 'yup';

/** A JSON Schema, or a part of one. */
export type JsonSchema = Record<string, unknown>;

/** What the schemas of core/model and core/kinds say of themselves beyond Yup: the forms that a thing may have. */
interface Said {
	alternatives?: Schema[];
}

/** What the bounds of each type are called. */
const limits = new Map([
	['number min', ['minimum']],
	['number max', ['maximum']],
	['string min', ['minLength']],
	['string max', ['maxLength']],
	['array min', ['minItems']],
	['array max', ['maxItems']],
	['array length', ['minItems', 'maxItems']]
]);

function bounded({ type, tests }: SchemaDescription): JsonSchema {
	return Object.fromEntries(
		tests.flatMap(({ name, params }) =>
			(limits.get(`${type} ${name ?? ''}`) ?? []).map((limit) => [limit, params?.[name!]] as const)
		)
	);
}

function ofObject({ fields }: SchemaObjectDescription): JsonSchema {
	const entries = Object.entries(fields);
	return {
		type: 'object',
		properties: Object.fromEntries(entries.map(([name, field]) => [name, ofField(field)])),
		required: entries
			.filter(([, field]) => !(field as SchemaDescription).optional || (field as SchemaDescription).default === null)
			.map(([name]) => name)
	};
}

function ofSimple(description: SchemaDescription): JsonSchema {
	const { type, oneOf, nullable } = description;
	if (oneOf.length) return oneOf.length === 1 ? { const: oneOf[0] } : { enum: oneOf };
	// of anything nothing is asked
	if (type === 'mixed') return {};
	return { type: nullable ? [type, 'null'] : type, ...bounded(description) };
}

function ofField(field: SchemaFieldDescription): JsonSchema {
	const description = field as SchemaDescription;
	const { alternatives } = (description.meta ?? {}) as Said;
	if (alternatives) return { anyOf: alternatives.map(jsonSchemaOf) };
	if (description.type === 'array')
		return {
			type: 'array',
			items: ofField((description as { innerType?: SchemaFieldDescription }).innerType!),
			...bounded(description)
		};
	if (description.type !== 'object') return ofSimple(description);
	const held = ofObject(description as SchemaObjectDescription);
	return description.nullable ? { anyOf: [{ type: 'null' }, held] } : held;
}

/** A schema of Yup as JSON Schema (draft 2020-12), as far as the schemas of the model go: objects, lists, texts, numbers, words and forms. */
export function jsonSchemaOf(schema: Schema): JsonSchema {
	return ofField(schema.describe());
}
