import { error, redirect } from '@sveltejs/kit';
import { beginning } from '$lib/forms/course';
import { choosing, joining } from '$lib/forms/person';
import { settings } from '$lib/server/config';
import { makeCourse } from '$lib/server/courses/make';
import { database } from '$lib/server/db/pool';
import { filledIn, slip } from '$lib/server/forms';
import { accept, choosePassword, invitationOf, join, type Joined } from '$lib/server/people/invitations';
import { Busy } from '$lib/server/people/passwords';
import { beginSession } from '$lib/server/people/sessions';
import { mostOfStranger } from '$lib/server/requests';

const nowhere = 'This link leads nowhere: it was used, it has ended, or it is not whole. Ask for another.';

async function invitationAt(token: string) {
	const found = await invitationOf(database(), token);
	if (!found) error(404, nowhere);
	return found;
}

export const load = async ({ params, locals }) => ({
	invitation: await invitationAt(params.token),
	person: locals.person
});

interface Entering {
	request: Request;
	cookies: { set: (name: string, value: string, options: never) => void };
	url: URL;
}

/** Signs somebody in who has just joined. */
async function enter({ request, cookies, url }: Entering, joined: Joined): Promise<number | null> {
	if (typeof joined === 'string') return null;
	const days = settings().sessionDays;
	const token = await beginSession(database(), joined.personId, days, request.headers.get('user-agent') ?? '');
	cookies.set('barrow_session', token, {
		path: '/',
		httpOnly: true,
		sameSite: 'lax',
		secure: url.protocol === 'https:',
		maxAge: days * 86_400
	} as never);
	return joined.personId;
}

/** Passwords are looked at by few at once: whoever comes then is asked to come again. */
async function unlessBusy<T>(work: () => Promise<T>): Promise<T | string> {
	try {
		return await work();
	} catch (cause) {
		if (cause instanceof Busy) return cause.message;
		throw cause;
	}
}

export const actions = {
	join: async (event) => {
		const invitation = await invitationAt(event.params.token);
		if (invitation.person) error(404, nowhere);
		const shape = invitation.first ? beginning : joining;
		const given = await filledIn(event.request, 'join', shape, mostOfStranger);
		if ('failed' in given) return given.failed;
		const joined = await unlessBusy(() => join(database(), event.params.token, given.filled));
		if (joined === 'known')
			return slip('join', given.values, {
				email: 'Somebody has this address already. If it is you, sign in, and open the link again.'
			});
		if (typeof joined === 'string') return slip('join', given.values, {}, joined === 'gone' ? nowhere : joined);
		const personId = await enter(event, joined);
		const { code, course, intake } = given.filled as { code?: string; course?: string; intake?: string };
		if (invitation.first && personId && code && course)
			await makeCourse(database(), personId, { code, name: course, intake: intake ?? '' });
		redirect(303, invitation.courseId ? `/courses/${invitation.courseId}/loads` : '/');
	},
	accept: async ({ params, locals }) => {
		const invitation = await invitationAt(params.token);
		if (!locals.person) redirect(303, '/signin');
		if ((await accept(database(), params.token, locals.person.id)) === 'gone') error(404, nowhere);
		redirect(303, invitation.courseId ? `/courses/${invitation.courseId}/loads` : '/');
	},
	password: async (event) => {
		const given = await filledIn(event.request, 'password', choosing, mostOfStranger);
		if ('failed' in given) return given.failed;
		const joined = await unlessBusy(() => choosePassword(database(), event.params.token, given.filled.password));
		if (typeof joined === 'string') return slip('password', {}, {}, joined === 'gone' ? nowhere : joined);
		await enter(event, joined);
		redirect(303, '/');
	}
};
