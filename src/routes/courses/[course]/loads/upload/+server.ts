import { error, json } from '@sveltejs/kit';
import { number, object, string, ValidationError } from 'yup';
import { courseAt } from '$lib/server/access';
import { settings } from '$lib/server/config';
import { database } from '$lib/server/db/pool';
import { receive } from '$lib/server/loads/loads';

const shape = object({ name: string().trim().min(1).max(1000).required(), size: number().integer().min(0).required() });

/** The pieces of a body, ended with an error where more arrives than was said or is allowed. */
async function* limited(body: ReadableStream<Uint8Array>, size: number): AsyncGenerator<Uint8Array> {
	let got = 0;
	for await (const piece of body as unknown as AsyncIterable<Uint8Array>) {
		got += piece.length;
		if (got > size) throw new Error('more arrived than was said');
		yield piece;
	}
	if (got < size) throw new Error('the upload broke off');
}

export const PUT = async ({ locals, params, request, url }) => {
	const { course, person } = await courseAt(locals, params, 'change');
	let given;
	try {
		given = shape.validateSync({ name: url.searchParams.get('name'), size: url.searchParams.get('size') });
	} catch (cause) {
		error(400, (cause as ValidationError).message);
	}
	const limit = settings().uploadLimit;
	if (given.size > limit)
		error(413, `The file is larger than ${Math.round(limit / 2 ** 20)} MB, which is the most that is taken here.`);
	if (!given.size || !request.body) error(400, 'The file is empty.');
	try {
		const id = await receive(
			database(),
			course.id,
			person.id,
			given.name,
			given.size,
			limited(request.body, given.size)
		);
		return json({ id });
	} catch (cause) {
		const code = (cause as { code?: string }).code;
		if (code === 'ER_RECORD_FILE_FULL' || code === 'ER_DISK_FULL')
			error(507, 'The disk of the database is full. The file was not kept; make room and drop it again.');
		if (code?.startsWith('ER_') || code === 'ECONNREFUSED') throw cause;
		error(400, 'The upload broke off, and nothing of it was kept. Drop the file again.');
	}
};
