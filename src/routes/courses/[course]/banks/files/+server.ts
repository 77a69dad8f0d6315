import { error, json } from '@sveltejs/kit';
import { courseAt } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { storeFile } from '$lib/server/files/files';
import { handInFile } from '$lib/server/files/uses';
import { limited } from '$lib/server/requests';

/** The most bytes of a picture or a sound that is put into a question. */
const mostOfFile = 20 * 2 ** 20;
const taken = /^(image\/(png|jpeg|gif|svg\+xml|webp|avif)|audio\/[a-z0-9.+-]+|video\/[a-z0-9.+-]+)$/;

/** Takes a file for a question that is being edited: `type` is what it is, `name` what it is called; gives it as an attachment. */
export const PUT = async ({ locals, params, request, url }) => {
	const { course } = await courseAt(locals, params, 'work');
	const mediaType = url.searchParams.get('type') ?? '';
	if (!taken.test(mediaType)) error(400, 'Only pictures, sounds and videos can be put into a question.');
	if (!request.body) error(400, 'The file is empty.');
	const { hash, id, size } = await storeFile(database(), limited(request.body, mostOfFile));
	if (!size) error(400, 'The file is empty.');
	await handInFile(database(), course.id, id);
	const given = (url.searchParams.get('name') ?? '').replace(/[^\p{L}\p{N}._-]+/gu, '-').slice(-100) || 'picture';
	return json({ name: `${hash.slice(0, 8)}-${given}`, mediaType, hash, missing: false });
};
