import { lookup } from '../model/lookup';

/** Why a document is refused as a whole; the message is for people. */
export class RefusedDocument extends Error {
	constructor(
		readonly rule: 'external-entity' | 'entity-expansion',
		message: string
	) {
		super(message);
	}
}

/** Plain character entities of a document type. Throws a RefusedDocument for outside entities, and for entities made of entities. */
export function declaredEntities(doctype: string): Record<string, string> {
	const found = lookup<string>();
	for (const [, parameter, name, body] of doctype.matchAll(/<!ENTITY\s+(%\s+)?([^\s%]+)\s+([^>]*)>/g)) {
		const literal = /^\s*(["'])(.*)\1\s*$/s.exec(body!)?.[2];
		if (parameter || literal === undefined)
			throw new RefusedDocument('external-entity', `the document type declares the outside entity “${name}”`);
		const text = literal.replace(/&#(x?)([0-9a-f]+);/gi, (_, hex: string, digits: string) =>
			String.fromCodePoint(parseInt(digits, hex ? 16 : 10) || 32)
		);
		if (/[&%<]/.test(text) || text.length > 64)
			throw new RefusedDocument('entity-expansion', `the document type builds the entity “${name}” out of others`);
		found[name!] = text;
	}
	return found;
}
