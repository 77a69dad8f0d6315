import { existsSync, readFileSync } from 'node:fs';
import { dirname, resolve } from 'node:path';
import ts from 'typescript';

/** What each file imports of the project, by their paths; each file is read once in a run. */
const imported = new Map();

/** The file that an import of another means; null where it is a package. */
function fileOf(from, specifier) {
	const aliases = { $core: 'core', $lib: 'src/lib' };
	const [head, ...rest] = specifier.split('/');
	const path = specifier.startsWith('.')
		? resolve(dirname(from), specifier)
		: aliases[head]
			? resolve(import.meta.dirname, '../..', aliases[head], ...rest)
			: null;
	if (!path) return null;
	return [path, `${path}.ts`, `${path}/index.ts`].find((file) => file.endsWith('.ts') && existsSync(file)) ?? null;
}

function importsOf(file) {
	if (!imported.has(file)) {
		const found = ts.preProcessFile(readFileSync(file, 'utf8'), true, true).importedFiles;
		imported.set(file, [...new Set(found.map(({ fileName }) => fileOf(file, fileName)).filter(Boolean))]);
	}
	return imported.get(file);
}

/** The shortest way from one file to another along imports, as paths; null where there is none. */
function wayTo(from, to) {
	const cameFrom = new Map([[from, null]]);
	for (const file of cameFrom.keys())
		for (const next of importsOf(file)) {
			if (next === to) {
				const way = [to];
				for (let at = file; at; at = cameFrom.get(at)) way.unshift(at);
				return way;
			}
			if (!cameFrom.has(next)) cameFrom.set(next, file);
		}
	return null;
}

/** A rule of ESLint: no file imports another that leads back to it, not even for types alone. */
export default {
	meta: { type: 'problem', schema: [] },
	create(context) {
		return {
			ImportDeclaration(node) {
				const target = fileOf(context.filename, node.source.value);
				const way = target && target !== context.filename ? wayTo(target, context.filename) : null;
				if (way) {
					const names = way.map((file) => file.slice(resolve(import.meta.dirname, '../..').length + 1)).join(' → ');
					context.report({ node, message: `This import leads back here: ${names}. Move what both need below them.` });
				}
			}
		};
	}
};
