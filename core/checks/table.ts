import type { Check } from './check';

const row = (cells: string[]) => `| ${cells.join(' | ')} |`;

/** The checks as a Markdown table, made from what they say of themselves. */
export function checkTable(checks: Check[]): string {
	return [
		row(['check', 'id', 'over', 'severity', 'why it matters', 'mend']),
		row(['---', '---', '---', '---', '---', '---']),
		...checks.map((check) =>
			row([
				check.title,
				`\`${check.id}\``,
				check.scope,
				check.severity,
				check.why,
				('mend' in check && check.mend?.title) || ''
			])
		)
	].join('\n');
}
