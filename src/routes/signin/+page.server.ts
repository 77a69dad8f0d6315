import { fail, redirect } from '@sveltejs/kit';
import { object, string } from 'yup';
import { settings } from '$lib/server/config';
import { database } from '$lib/server/db/pool';
import { signIn } from '$lib/server/people/sessions';

const shape = object({
	email: string().trim().max(190).required('Write your e-mail address.'),
	password: string().max(1000).required('Write your password.')
});

export const load = ({ locals, url }) => {
	if (locals.person) redirect(303, '/');
	return { to: url.searchParams.get('to') ?? '/' };
};

export const actions = {
	default: async ({ request, cookies, url }) => {
		const form = Object.fromEntries(await request.formData());
		const email = String(form.email ?? '');
		let given;
		try {
			given = shape.validateSync(form);
		} catch (error) {
			return fail(400, { email, refused: (error as Error).message });
		}
		const result = await signIn(database(), given.email, given.password, settings().sessionDays);
		if ('refused' in result) return fail(401, { email, refused: result.refused });
		cookies.set('barrow_session', result.token, {
			path: '/',
			httpOnly: true,
			sameSite: 'lax',
			secure: url.protocol === 'https:',
			maxAge: settings().sessionDays * 86_400
		});
		const to = url.searchParams.get('to') ?? '/';
		redirect(303, /^\/(?![/\\])/.test(to) ? to : '/');
	}
};
