import { object } from 'yup';
import { ownName, passwordChange } from '$lib/forms/person';
import { signedIn } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { filledIn, slip } from '$lib/server/forms';
import { Busy } from '$lib/server/people/passwords';
import { changePassword, rename } from '$lib/server/people/people';
import { devicesOf, signOutDevice } from '$lib/server/people/sessions';
import { countTry, forgive } from '$lib/server/people/tries';
import { key, plainFormOf } from '$lib/server/requests';

const tokenIn = (cookies: { get: (name: string) => string | undefined }) => cookies.get('barrow_session') ?? '';

export const load = async ({ locals, cookies }) => {
	const person = signedIn(locals);
	return { person, devices: await devicesOf(database(), person.id, tokenIn(cookies)) };
};

export const actions = {
	name: async ({ locals, request }) => {
		const person = signedIn(locals);
		const given = await filledIn(request, 'name', ownName);
		if ('failed' in given) return given.failed;
		await rename(database(), person.id, given.filled.name);
		return { done: 'You are called that from now on.' };
	},
	password: async ({ locals, request, cookies, getClientAddress }) => {
		const person = signedIn(locals);
		const given = await filledIn(request, 'password', passwordChange);
		if ('failed' in given) return given.failed;
		const { before, password } = given.filled;
		const wait = await countTry(database(), person.email, getClientAddress());
		if (wait) return slip('password', {}, { before: 'Too many wrong tries. Wait a little.' });
		try {
			if (!(await changePassword(database(), person.id, before, password, tokenIn(cookies))))
				return slip('password', {}, { before: 'That is not the password that you have now.' });
		} catch (cause) {
			if (cause instanceof Busy) return slip('password', {}, { before: cause.message });
			throw cause;
		}
		await forgive(database(), person.email, getClientAddress());
		return { done: 'The password is changed, and you are signed out everywhere else.' };
	},
	device: async ({ locals, request, cookies }) => {
		const person = signedIn(locals);
		const { device } = await plainFormOf(request, object({ device: key('The device') }));
		const ended = await signOutDevice(database(), person.id, device ?? null, tokenIn(cookies));
		return { done: `You are signed out on ${ended === 1 ? 'one device' : `${ended} devices`}.` };
	}
};
