import { error, json } from '@sveltejs/kit';
import { number, object, string } from 'yup';
import { courseAt } from '$lib/server/access';
import { settings } from '$lib/server/config';
import { database } from '$lib/server/db/pool';
import { bytesOf, checked, jsonOf, requiredKey, wholeNumber } from '$lib/server/requests';
import { Refused } from '$lib/server/loads/refused';
import { addPiece, beginUpload, dropUpload } from '$lib/server/loads/uploads';

/** The most bytes of one piece. */
const mostAtOnce = 16 * 2 ** 20;
const beginning = object({
	name: string().trim().min(1).max(1000).required(),
	size: number().integer().min(1).required(),
	mark: string().max(40).default('')
});
const piece = object({
	id: requiredKey('The upload'),
	offset: wholeNumber('The offset').required('The offset is not named')
});

const diskIsFull = (cause: unknown) =>
	['ER_RECORD_FILE_FULL', 'ER_DISK_FULL'].includes((cause as { code?: string }).code ?? '');

/** Begins an upload, or finds the one that broke off; says where to go on. */
export const POST = async ({ locals, params, request }) => {
	const { course, person } = await courseAt(locals, params, 'work');
	const { name, size, mark } = await jsonOf(request, beginning);
	const limit = settings().uploadLimit;
	if (size > limit)
		error(413, `The file is larger than ${Math.round(limit / 2 ** 20)} MB, which is the most that is taken here.`);
	return json(await beginUpload(database(), course.id, person.id, name, size, mark));
};

/** Takes a piece; says where to go on. */
export const PUT = async ({ locals, params, request, url }) => {
	const { course, person } = await courseAt(locals, params, 'work');
	const { id, offset } = checked(piece, { id: url.searchParams.get('id'), offset: url.searchParams.get('offset') });
	const bytes = await bytesOf(request, mostAtOnce);
	try {
		return json(await addPiece(database(), course.id, person.id, id, offset, bytes));
	} catch (cause) {
		if (cause instanceof Refused) error(409, cause.message);
		if (diskIsFull(cause))
			error(507, 'The disk of the database is full. What has arrived is kept; make room and go on.');
		throw cause;
	}
};

/** Throws an upload away. */
export const DELETE = async ({ locals, params, url }) => {
	const { course, person } = await courseAt(locals, params, 'work');
	const { id } = checked(piece, { id: url.searchParams.get('id'), offset: 0 });
	await dropUpload(database(), course.id, person.id, id);
	return new Response(null, { status: 204 });
};
