import { error } from '@sveltejs/kit';
import { courseAt, keyOf } from '$lib/server/access';
import { printAsked } from '$lib/server/quizzes/print';
import { keyIn } from '$lib/server/requests';
import { threads } from '$lib/server/threads/ask';

/** Forms of a quiz, or their keys, as a Word document. */
export const GET = async ({ locals, params, url }) => {
	const { course } = await courseAt(locals, params);
	const id = keyIn(url, 'forms');
	const asked = printAsked(url);
	const written = id === null ? null : await threads().ask('formsInWord', course.id, keyOf(params.quiz), id, asked);
	if (!written) error(404, 'There are no such forms of this quiz. Make them on its page.');
	const name = `${written.title.replace(/[^\p{L}\p{N}]+/gu, '-').slice(0, 80)}-${asked.what}.docx`;
	return new Response(new Uint8Array(written.bytes), {
		headers: {
			'Content-Type': 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
			'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
			'Cache-Control': 'no-store'
		}
	});
};
