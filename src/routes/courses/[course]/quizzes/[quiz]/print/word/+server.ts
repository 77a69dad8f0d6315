import { error } from '@sveltejs/kit';
import { wordDocument } from '$core/paper/word/document';
import { courseAt, keyOf } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { picturesOf, printAsked, printedForms } from '$lib/server/quizzes/print';
import { keyIn } from '$lib/server/requests';

/** Forms of a quiz, or their keys, as a Word document. */
export const GET = async ({ locals, params, url }) => {
	const { course } = await courseAt(locals, params);
	const id = keyIn(url, 'forms');
	const asked = printAsked(url);
	const printed = id === null ? undefined : await printedForms(database(), course.id, keyOf(params.quiz), id, asked);
	if (!printed) error(404, 'There are no such forms of this quiz. Make them on its page.');
	const pictures =
		asked.what === 'keys' ? new Map<string, Uint8Array>() : await picturesOf(database(), course.id, printed);
	const name = `${printed.title.replace(/[^\p{L}\p{N}]+/gu, '-').slice(0, 80)}-${asked.what}.docx`;
	return new Response(new Uint8Array(wordDocument(printed, (hash) => pictures.get(hash))), {
		headers: {
			'Content-Type': 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
			'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
			'Cache-Control': 'no-store'
		}
	});
};
