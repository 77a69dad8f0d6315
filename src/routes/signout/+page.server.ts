import { redirect } from '@sveltejs/kit';
import { database } from '$lib/server/db/pool';
import { signOut } from '$lib/server/people/sessions';

export const load = () => redirect(303, '/');

export const actions = {
	default: async ({ cookies }) => {
		const token = cookies.get('barrow_session');
		if (token) await signOut(database(), token);
		cookies.delete('barrow_session', { path: '/' });
		redirect(303, '/signin');
	}
};
