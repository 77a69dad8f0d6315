import { error, json } from '@sveltejs/kit';
import { courseAt, keyOf } from '$lib/server/access';
import { storedQuestion } from '$lib/server/banks/banks';
import { database } from '$lib/server/db/pool';
import { partnerOf } from '$lib/server/snags/waive';
import { threads } from '$lib/server/threads/ask';

export const GET = async ({ locals, params, url }) => {
	const { course } = await courseAt(locals, params);
	const id = keyOf(url.searchParams.get('question'));
	const check = (url.searchParams.get('check') ?? '').slice(0, 60);
	const [stored, preview, partnerId] = await Promise.all([
		storedQuestion(database(), course.id, id),
		threads().ask('mendPreview', course.id, check, id),
		partnerOf(database(), course.id, check, id)
	]);
	if (!stored) error(404, 'There is no such question in this course.');
	const partner = partnerId === null ? null : ((await storedQuestion(database(), course.id, partnerId)) ?? null);
	return json({ stored, preview, partner });
};
