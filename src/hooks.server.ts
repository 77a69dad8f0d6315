import { error, redirect, type Handle, type HandleServerError, type ServerInit } from '@sveltejs/kit';
import { building } from '$app/environment';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { settings } from '$lib/server/config';
import { database, isUnreachable } from '$lib/server/db/pool';
import { supervise, type Supervisor } from '$lib/server/jobs/supervisor';
import { personOf } from '$lib/server/people/sessions';

/** The name of the session cookie. */
const cookieName = 'barrow_session';

let supervisor: Supervisor | undefined;

/** Begins to work on jobs when the process starts, and gives them back when it ends. */
export const init: ServerInit = () => {
	if (building || settings().jobThreads === 0) return;
	supervisor = supervise(database(), settings(), pathToFileURL(join(process.cwd(), 'build/threads/job.js')));
	process.on('sveltekit:shutdown', () => void supervisor?.close().finally(() => database().end()));
};

const notReachable =
	'The database does not answer just now. Nothing is half done; try again in a moment, and look first whether it was done already.';

async function whoAsks(token: string | undefined) {
	try {
		return token ? await personOf(database(), token) : null;
	} catch (cause) {
		if (isUnreachable(cause)) error(503, notReachable);
		throw cause;
	}
}

/** Finds out who asks, lets nobody in who is not signed in, and refuses changes that come from another site. */
export const handle: Handle = async ({ event, resolve }) => {
	event.locals.person = await whoAsks(event.cookies.get(cookieName));
	const { method, headers } = event.request;
	if (method !== 'GET' && method !== 'HEAD') {
		const origin = headers.get('origin');
		if (origin !== null && origin !== event.url.origin) error(403, 'This was sent from another site, and was refused.');
	}
	if (!event.locals.person && event.route.id !== '/signin') {
		if (method !== 'GET' || event.url.pathname.endsWith('/status')) error(401, 'You are signed out. Sign in again.');
		redirect(
			303,
			event.url.pathname === '/' ? '/signin' : `/signin?to=${encodeURIComponent(event.url.pathname + event.url.search)}`
		);
	}
	const answered = await resolve(event);
	// whoever uploads waits for a server that is being started again, and goes on
	const response =
		event.locals.unreachable && answered.status === 500
			? new Response(answered.body, { status: 503, headers: answered.headers })
			: answered;
	response.headers.set('X-Content-Type-Options', 'nosniff');
	response.headers.set('Referrer-Policy', 'same-origin');
	if (!response.headers.has('Cache-Control')) response.headers.set('Cache-Control', 'private, no-cache');
	return response;
};

/** Writes an unforeseen error to the log and tells the person so, without its insides. */
export const handleError: HandleServerError = ({ error: cause, event, status, message }) => {
	if (status === 404) return { message: 'There is nothing at this address.' };
	console.error(event.request.method, event.url.pathname, cause);
	const code = (cause as { code?: string } | null)?.code;
	if (isUnreachable(cause)) {
		event.locals.unreachable = true;
		return { message: notReachable };
	}
	if (code === 'ER_RECORD_FILE_FULL' || code === 'ER_DISK_FULL')
		return { message: 'The disk of the database is full. Nothing was changed; make room and try again.' };
	return {
		message:
			status === 500 ? 'Something went wrong here, and was written to the server log. Nothing was changed.' : message
	};
};
