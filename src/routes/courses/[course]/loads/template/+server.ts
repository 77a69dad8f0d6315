import { error } from '@sveltejs/kit';
import { exampleQuestions } from '$core/formats/examples';
import { writtenFormat } from '$core/formats';
import { courseAt } from '$lib/server/access';

const offered = ['text', 'csv', 'xlsx'];

/** A template: one example of each kind, written by our own writer of that format. */
export const GET = async ({ locals, params, url }) => {
	await courseAt(locals, params);
	const name = url.searchParams.get('as') ?? '';
	const format = offered.includes(name) ? writtenFormat(name) : undefined;
	if (!format) error(404, 'There is a template for text, csv and xlsx.');
	const pieces: Uint8Array[] = [];
	const stream = format.write({
		identifier: 'TEMPLATE',
		title: 'Template',
		count: exampleQuestions.length,
		question: async (at) => exampleQuestions[at]!,
		quizzes: [],
		media: async function* () {
			// the examples have no pictures
		}
	});
	for await (const piece of stream) pieces.push(piece);
	return new Response(Buffer.concat(pieces), {
		headers: {
			'Content-Type': 'application/octet-stream',
			'Content-Disposition': `attachment; filename="questions-template${format.ending}"`
		}
	});
};
