import { error } from '@sveltejs/kit';
import { string } from 'yup';
import { courseAt } from '$lib/server/access';
import { courseFile } from '$lib/server/files/uses';
import { asBody } from '$lib/server/files/body';
import { fileChunks } from '$lib/server/files/files';
import { database } from '$lib/server/db/pool';

const shown = /^(image\/(png|jpeg|gif|svg\+xml|webp|avif|bmp)|audio\/[a-z0-9]+|video\/[a-z0-9]+)$/;

export const GET = async ({ locals, params, url }) => {
	const { course } = await courseAt(locals, params);
	if (
		!string()
			.matches(/^[0-9a-f]{64}$/)
			.isValidSync(params.hash)
	)
		error(404, 'There is no such file.');
	const file = await courseFile(database(), course.id, params.hash);
	if (!file) error(404, 'There is no such file in this course.');
	const asked = url.searchParams.get('as') ?? '';
	const type = shown.test(asked) ? asked : 'application/octet-stream';
	return new Response(asBody(fileChunks(database(), file.id)), {
		headers: {
			'Content-Type': type,
			'Content-Length': String(file.size),
			'Cache-Control': 'private, max-age=31536000, immutable',
			// a picture can be a document with scripts in it: it is shown, and nothing in it runs
			'Content-Security-Policy': "default-src 'none'; style-src 'unsafe-inline'; sandbox",
			...(type === 'application/octet-stream' ? { 'Content-Disposition': 'attachment' } : {})
		}
	});
};
