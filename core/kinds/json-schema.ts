import { jsonSchemaOf, type JsonSchema } from '../model/json-schema';
import { questionSchemas } from './schema';

/** The published JSON Schema of a question (JSON Schema draft 2020-12), which docs/question.schema.json repeats. */
export function questionJsonSchema(): JsonSchema {
	return {
		$schema: 'https://json-schema.org/draft/2020-12/schema',
		$id: 'urn:yarn-barrow:question:1',
		title: 'A question',
		oneOf: [...questionSchemas.values()].map(jsonSchemaOf)
	};
}
