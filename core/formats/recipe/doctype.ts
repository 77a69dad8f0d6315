import { declaredEntities, RefusedDocument } from '../../xml/declared';
import { escapeText } from '../../xml/serialise';

const doctype = /<!DOCTYPE\s+([^>[]*(?:\[[^\]]*\]\s*)?)>/i;
const reference = /<!\[CDATA\[[\s\S]*?\]\]>|<!--[\s\S]*?-->|&([A-Za-z_][\w.-]*);/g;

/**
 * XML without its document type, with the plain entities that it declares put in place, within the limits that hold for
 * every reader; or why it is refused: an entity from outside, or one that is built out of others. Lines stay where they are.
 */
export function withoutDoctype(
	text: string
): { text: string } | { refused: Pick<RefusedDocument, 'rule' | 'message'> } {
	const found = doctype.exec(text.slice(0, 1 << 20));
	if (!found) return { text };
	if (/^\S+\s+(?:SYSTEM|PUBLIC)\b/i.test(found[1]!))
		return { refused: { rule: 'external-entity', message: 'the document type stands outside of the file' } };
	let entities: Map<string, string>;
	try {
		entities = new Map(Object.entries(declaredEntities(found[1]!)));
	} catch (error) {
		if (error instanceof RefusedDocument) return { refused: error };
		throw error;
	}
	const lines = '\n'.repeat(found[0].split('\n').length - 1);
	const bare = text.slice(0, found.index) + lines + text.slice(found.index + found[0].length);
	return {
		text: bare.replace(reference, (whole, name: string | undefined) =>
			name !== undefined && entities.has(name) ? escapeText(entities.get(name)!) : whole
		)
	};
}
