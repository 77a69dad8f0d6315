import { redirect } from '@sveltejs/kit';
import { signing } from '$lib/forms/person';
import { settings } from '$lib/server/config';
import { database } from '$lib/server/db/pool';
import { filledIn, slip } from '$lib/server/forms';
import { Busy } from '$lib/server/people/passwords';
import { signIn, signOut } from '$lib/server/people/sessions';
import { wayBack } from '$lib/server/people/way-back';
import { mostOfStranger } from '$lib/server/requests';

export const load = ({ locals }) => {
	if (locals.person) redirect(303, '/');
};

export const actions = {
	default: async ({ request, cookies, url, getClientAddress }) => {
		const given = await filledIn(request, 'signin', signing, mostOfStranger);
		if ('failed' in given) return given.failed;
		const { email, password } = given.filled;
		const before = cookies.get('barrow_session');
		try {
			const result = await signIn(
				database(),
				{ email, password, address: getClientAddress(), device: request.headers.get('user-agent') ?? '' },
				settings().sessionDays
			);
			if ('refused' in result) return slip('signin', { email }, {}, result.refused, 401);
			if (before) await signOut(database(), before);
			cookies.set('barrow_session', result.token, {
				path: '/',
				httpOnly: true,
				sameSite: 'lax',
				secure: url.protocol === 'https:',
				maxAge: settings().sessionDays * 86_400
			});
		} catch (error) {
			if (error instanceof Busy) return slip('signin', { email }, {}, error.message, 503);
			throw error;
		}
		redirect(303, wayBack(url.searchParams.get('to'), url.origin));
	}
};
