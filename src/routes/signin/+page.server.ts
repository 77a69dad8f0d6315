import { fail, redirect } from '@sveltejs/kit';
import { object, string, ValidationError } from 'yup';
import { settings } from '$lib/server/config';
import { database } from '$lib/server/db/pool';
import { Busy } from '$lib/server/people/passwords';
import { signIn, signOut } from '$lib/server/people/sessions';
import { wayBack } from '$lib/server/people/way-back';
import { formOf, mostOfStranger } from '$lib/server/requests';

const invisible = /[\p{Cc}\p{Cf}]/u;
const shape = object({
	email: string()
		.trim()
		.max(190, 'An e-mail address has 190 letters at the most.')
		.required('Write your e-mail address.')
		.test(
			'plain',
			'There are signs in the e-mail address that cannot be seen. Type it anew.',
			(text) => !invisible.test(text)
		),
	password: string().max(1000, 'A password has 1,000 letters at the most.').required('Write your password.')
});

export const load = ({ locals }) => {
	if (locals.person) redirect(303, '/');
};

export const actions = {
	default: async ({ request, cookies, url, getClientAddress }) => {
		let given;
		try {
			given = await formOf(request, shape, mostOfStranger);
		} catch (error) {
			if (error instanceof ValidationError) return fail(400, { email: '', refused: error.message });
			throw error;
		}
		const { email, password } = given;
		const before = cookies.get('barrow_session');
		try {
			const result = await signIn(
				database(),
				{ email, password, address: getClientAddress(), device: request.headers.get('user-agent') ?? '' },
				settings().sessionDays
			);
			if ('refused' in result) return fail(401, { email, refused: result.refused });
			if (before) await signOut(database(), before);
			cookies.set('barrow_session', result.token, {
				path: '/',
				httpOnly: true,
				sameSite: 'lax',
				secure: url.protocol === 'https:',
				maxAge: settings().sessionDays * 86_400
			});
		} catch (error) {
			if (error instanceof Busy) return fail(503, { email, refused: error.message });
			throw error;
		}
		redirect(303, wayBack(url.searchParams.get('to'), url.origin));
	}
};
