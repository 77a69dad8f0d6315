import { error } from '@sveltejs/kit';
import Papa from 'papaparse';
import { courseAt } from '$lib/server/access';
import { bankNames } from '$lib/server/banks/banks';
import { database } from '$lib/server/db/pool';
import { keyIn } from '$lib/server/requests';
import { reportLines } from '$lib/server/snags/report';
import { ruleTitle } from '$lib/ui/rule';

/** The report of a bank as a table: a line a snag, with a link to its question. */
export const GET = async ({ locals, params, url }) => {
	const { course } = await courseAt(locals, params);
	const db = database();
	const banks = await bankNames(db, course.id);
	const bank = banks.find(({ id }) => id === keyIn(url, 'bank')) ?? banks[0];
	if (!bank) error(404, 'There is no bank in this course yet.');
	const { lines } = await reportLines(db, bank.id);
	const table = Papa.unparse(
		lines.map((line) => ({
			category: line.category,
			question: line.title,
			kind: line.kind,
			severity: line.severity,
			check: ruleTitle(line.rule),
			message: line.message,
			link: `${url.origin}/courses/${course.id}/banks?bank=${bank.id}&question=${line.questionId}`
		})),
		// what a spreadsheet would take for a formula is text
		{ escapeFormulae: true, newline: '\r\n' }
	);
	return new Response(`\ufeff${table}`, {
		headers: {
			'content-type': 'text/csv; charset=utf-8',
			'content-disposition': `attachment; filename="snags-${bank.id}.csv"`
		}
	});
};
