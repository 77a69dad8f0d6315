import type { Check } from './check';

const row = (cells: string[]) => `| ${cells.join(' | ')} |`;

/** The checks as a Markdown table, made from what they say of themselves. */
export function checkTable(checks: Check[]): string {
	return [
		row(['check', 'id', 'severity', 'why it matters', 'mend']),
		row(['---', '---', '---', '---', '---']),
		...checks.map(({ id, title, severity, why, mend }) => row([title, `\`${id}\``, severity, why, mend?.title ?? '']))
	].join('\n');
}
