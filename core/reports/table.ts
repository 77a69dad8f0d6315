import { readerRules } from './rules';

const line = (cells: string[]) => `| ${cells.join(' | ')} |`;

/** The rules that readers speak by as a Markdown table, made from their register. */
export function readerRuleTable(): string {
	return [
		line(['rule', 'id', 'why it matters']),
		line(['---', '---', '---']),
		...Object.entries(readerRules).map(([id, { title, why }]) => line([title, `\`${id}\``, why]))
	].join('\n');
}
