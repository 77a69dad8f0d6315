import { jsonSchemaOf, type JsonSchema } from '../../model/json-schema';
import { sheetShape } from './shape';

/** The published JSON Schema of a draw sheet (docs/sheet.schema.json), made from the schema that sheets are read by. */
export function sheetJsonSchema(): JsonSchema {
	return {
		$schema: 'https://json-schema.org/draft/2020-12/schema',
		title: 'Draw sheet',
		...jsonSchemaOf(sheetShape)
	};
}
