import { ownValue } from '../../model/lookup';
import type { RecordAccess, Value } from './record';
import { follow, type Found } from './json';

function jsonValue({ value }: Found): Value {
	if (value === null || value === undefined) return { text: '', html: null, plain: null };
	if (typeof value === 'object')
		return {
			text: Array.isArray(value) ? value.map(String).join('; ') : JSON.stringify(value),
			html: null,
			plain: value
		};
	return { text: String(value), html: null, plain: value };
}

/** A record of a JSON document. */
export function jsonRecord(start: Found): RecordAccess {
	return {
		values: (path) => follow(start, path).map(jsonValue),
		parts: (path) => follow(start, path).map(jsonRecord),
		fields: () =>
			typeof start.value === 'object' && start.value !== null && !Array.isArray(start.value)
				? Object.entries(start.value).flatMap(([name, value]): [string, string][] => {
						const { text } = jsonValue({ value, around: [] });
						return text.trim() ? [[name, text]] : [];
					})
				: [],
		ancestors: (label) =>
			start.around.flatMap((object) => {
				const value = ownValue(object as Record<string, unknown>, label);
				return typeof value === 'string' && value.trim() ? [value.trim()] : [];
			})
	};
}
