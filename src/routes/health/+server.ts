import { json } from '@sveltejs/kit';
import { database } from '$lib/server/db/pool';
import { healthOf } from '$lib/server/health';

/** How this process stands: 200 where it can do its work, 503 where not. Anybody may ask. */
export const GET = async () => {
	const health = await healthOf(database(), process.cwd());
	return json(health, { status: health.ready ? 200 : 503 });
};
