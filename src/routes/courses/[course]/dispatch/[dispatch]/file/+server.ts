import { error } from '@sveltejs/kit';
import { courseAt, keyOf } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { dispatchOf } from '$lib/server/dispatches/dispatches';
import { asBody } from '$lib/server/files/body';
import { fileChunks } from '$lib/server/files/files';

export const GET = async ({ locals, params }) => {
	const { course } = await courseAt(locals, params);
	const dispatch = await dispatchOf(database(), course.id, keyOf(params.dispatch));
	if (!dispatch?.file_id || !dispatch.proof) error(404, 'This dispatch has no file that can be fetched.');
	return new Response(asBody(fileChunks(database(), dispatch.file_id)), {
		headers: {
			'Content-Type': 'application/zip',
			'Content-Length': String(dispatch.proof.size),
			'Content-Disposition': `attachment; filename="${dispatch.file_name}"`
		}
	});
};
