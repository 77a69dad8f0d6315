import { memorySource, singleFile, type Container } from '../container/container';
import { beginning } from '../markup/text';
import { readPlainText } from '../container/decode';
import type { Report } from '../reports/report';
import { fence } from './text/markdown';

/**
 * A text that carries JSON or a table in a block of code, as language models give it, as a file of that block alone, with
 * its lines where they were, and a report on the words around it; null for any other text.
 */
export async function fencedFile(
	container: Container,
	file: string,
	isData: (block: string, language: string) => boolean
): Promise<{ container: Container; report: Report | null } | null> {
	const { text } = await readPlainText(container, file);
	const lines = (text ?? '').split(/\r\n|\r|\n/);
	const from = lines.findIndex((line) => fence.test(line.trim()));
	const length = from < 0 ? -1 : lines.slice(from + 1).findIndex((line) => fence.test(line.trim()));
	if (length < 1) return null;
	const block = lines.slice(from + 1, from + 1 + length);
	const language = lines[from]!.trim()
		.replace(/^[`~]+\s*/, '')
		.toLowerCase();
	const around = [...lines.slice(0, from), ...lines.slice(from + length + 2)].join(' ').replace(/\s+/g, ' ').trim();
	if (around.includes('```') || !isData(block.join('\n'), language)) return null;
	const kept = `${'\n'.repeat(from + 1)}${block.join('\n')}\n`;
	return {
		container: singleFile(file, memorySource(new TextEncoder().encode(kept))),
		report: around
			? {
					rule: 'left-out-text',
					severity: 'untidy',
					message: `The words around the block of data were left out: “${beginning(around, 160)}”.`,
					place: { file, line: 1 }
				}
			: null
	};
}
