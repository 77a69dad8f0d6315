import type { Report } from '../../reports/report';
import type { ReaderRule } from '../../reports/rules';
import type { Row } from './row';
import type { RowDraft } from './row-draft';

/** What is odd about a row: what contradicts itself in it, how many cells it has of so many columns, and what its cells and its sheet say. */
export function rowReports(
	row: Row,
	{ disagreeing, bothTruths, byStress, draft }: RowDraft,
	file: string,
	columns: number
): Report[] {
	const reports: Report[] = [];
	const odd = (rule: ReaderRule, severity: Report['severity'], message: string) =>
		reports.push({ rule, severity, message, place: { file, line: row.number } });
	if (disagreeing)
		odd(
			'contradictory-key',
			'broken',
			`Row ${row.number} gives its answer twice, and not the same: “${disagreeing.first}” and “${disagreeing.second}”. Neither was taken; ${draft.options.length ? 'mark the right one' : 'write the one that is right'}.`
		);
	if (bothTruths)
		odd(
			'contradictory-key',
			'broken',
			`Row ${row.number} is marked as true and as false. Neither was taken; mark the right one.`
		);
	if (byStress)
		odd(
			'guessed-key',
			'untidy',
			`The key of row ${row.number} was told from what stands out among the options (bold, marked or coloured). Look at it once.`
		);
	if (row.cells.length < columns)
		odd(
			'too-few-columns',
			'doubtful',
			`Row ${row.number} ends after ${row.cells.length} of ${columns} columns. What is missing was left empty.`
		);
	const beyond = row.cells.slice(columns).flatMap((cell) => cell.text || []);
	if (beyond.length)
		odd(
			'too-many-columns',
			'doubtful',
			`Row ${row.number} has more columns than there are headings: “${beyond.join('”, “')}” was left out.`
		);
	if (row.hidden)
		odd(
			'hidden-row',
			'doubtful',
			`Row ${row.number} is hidden in the sheet. It was read; leave it out if it is not meant.`
		);
	for (const cell of row.cells) if (cell.odd && !cell.merged) odd(cell.odd.rule, 'doubtful', cell.odd.message);
	if (row.odd) odd(row.odd.rule, row.odd.severity, row.odd.message);
	return reports;
}
