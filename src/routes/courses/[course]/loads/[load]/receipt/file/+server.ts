import { error } from '@sveltejs/kit';
import { courseAt, keyOf } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { loadOf } from '$lib/server/loads/loads';
import { receiptCsv, receiptHtml } from '$lib/server/loads/receipt-file';

export const GET = async ({ locals, params, url }) => {
	const { course } = await courseAt(locals, params);
	const load = await loadOf(database(), course.id, keyOf(params.load));
	if (load?.state !== 'taken') error(404, 'There is no receipt for this load: it is not in the course.');
	const html = url.searchParams.get('as') === 'html';
	const text = html ? await receiptHtml(database(), load, course.name) : await receiptCsv(database(), load);
	const name = `receipt-${load.file_name.replace(/[^A-Za-z0-9]+/g, '-')}`;
	return new Response(text, {
		headers: {
			'Content-Type': html ? 'text/html; charset=utf-8' : 'text/csv; charset=utf-8',
			'Content-Disposition': `attachment; filename="${name}.${html ? 'html' : 'csv'}"`
		}
	});
};
