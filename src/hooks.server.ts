import {
	error,
	redirect,
	type Handle,
	type HandleServerError,
	type RequestEvent,
	type ServerInit
} from '@sveltejs/kit';
import { building } from '$app/environment';
import { randomBytes } from 'node:crypto';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { settings } from '$lib/server/config';
import { database } from '$lib/server/db/pool';
import { troubleOf } from '$lib/server/db/trouble';
import { supervise, type Supervisor } from '$lib/server/jobs/supervisor';
import { log } from '$lib/server/log';
import { personOf } from '$lib/server/people/sessions';
import { mostOfStranger } from '$lib/server/requests';

/** The name of the session cookie. */
const cookieName = 'barrow_session';
/** Routes that anybody may ask for. */
const open = new Set<string | null>(['/signin', '/health', '/invited/[token]']);
const yearInSeconds = 365 * 86_400;

let supervisor: Supervisor | undefined;

/** Begins to work on jobs when the process starts, and gives them back when it ends. */
export const init: ServerInit = () => {
	if (building || settings().jobThreads === 0) return;
	supervisor = supervise(database(), settings(), pathToFileURL(join(process.cwd(), 'build/threads/job.js')));
	process.on('sveltekit:shutdown', () => void supervisor?.close().finally(() => database().end()));
};

async function whoAsks(token: string | undefined) {
	try {
		return token ? await personOf(database(), token) : null;
	} catch (cause) {
		const trouble = troubleOf(cause);
		if (trouble) error(trouble.status, trouble.message);
		throw cause;
	}
}

/** Refuses what nobody may send: a change from another site, an action of a name that is none, much from a stranger. */
function refuseOdd({ request, url, locals }: RequestEvent): void {
	const { method, headers } = request;
	if (method === 'GET' || method === 'HEAD') return;
	const origin = headers.get('origin');
	if (origin !== null && origin !== url.origin) error(403, 'This was sent from another site, and was refused.');
	const action = /^\?\/([^&=]*)/.exec(url.search)?.[1];
	// names that every object has are no names of actions
	if (action !== undefined && action in Object.prototype) error(404, 'There is nothing at this address.');
	if (locals.person) return;
	const length = headers.get('content-length');
	if (length === null && request.body) error(411, 'What is sent without a session has to say its length.');
	if (Number(length ?? 0) > mostOfStranger)
		error(413, 'That is more than is taken from somebody who is not signed in.');
}

function headersOf(event: RequestEvent, response: Response): void {
	const { headers } = response;
	headers.set('X-Content-Type-Options', 'nosniff');
	headers.set('Referrer-Policy', 'same-origin');
	headers.set('Cross-Origin-Opener-Policy', 'same-origin');
	headers.set('Cross-Origin-Resource-Policy', 'same-origin');
	headers.set('X-Request-Id', event.locals.requestId);
	if (event.url.protocol === 'https:') headers.set('Strict-Transport-Security', `max-age=${yearInSeconds}`);
	if (!headers.has('Cache-Control')) headers.set('Cache-Control', 'private, no-store');
}

/** Finds out who asks, lets nobody in who is not signed in, and refuses what nobody may send. */
export const handle: Handle = async ({ event, resolve }) => {
	event.locals.requestId = randomBytes(6).toString('hex');
	event.locals.person = await whoAsks(event.cookies.get(cookieName));
	refuseOdd(event);
	if (!event.locals.person && !open.has(event.route.id)) {
		const { pathname, search } = event.url;
		if (event.request.method !== 'GET' || pathname.endsWith('/status'))
			error(401, 'You are signed out. Sign in again.');
		redirect(303, pathname === '/' ? '/signin' : `/signin?to=${encodeURIComponent(pathname + search)}`);
	}
	const answered = await resolve(event);
	// whoever uploads waits for a server that is being started again, and goes on
	const response =
		event.locals.unreachable && answered.status === 500
			? new Response(answered.body, { status: 503, headers: answered.headers })
			: answered;
	headersOf(event, response);
	return response;
};

/** Writes an unforeseen error to the log and tells the person so, with the number by which it is found there, without its insides. */
export const handleError: HandleServerError = ({ error: cause, event, status, message }) => {
	if (status === 404) return { message: 'There is nothing at this address.' };
	const id = event.locals.requestId ?? '';
	const { method } = event.request;
	// what is wrong with a request is no fault here
	log[status >= 500 ? 'error' : 'info'](
		{
			request: id,
			method,
			// whoever reads the log is not to come in by it
			path: event.route.id === '/invited/[token]' ? event.route.id : event.url.pathname,
			route: event.route.id,
			person: event.locals.person?.id,
			error: cause
		},
		'a request failed'
	);
	const trouble = troubleOf(cause);
	if (trouble) {
		event.locals.unreachable = trouble.status === 503;
		return { message: trouble.message, id };
	}
	if (status !== 500) return { message };
	return { message: 'Something went wrong here, and was written to the server log. Nothing was changed.', id };
};
