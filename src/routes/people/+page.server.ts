import { error } from '@sveltejs/kit';
import { object, string } from 'yup';
import { installationInvitation } from '$lib/forms/person';
import { keeperAt } from '$lib/server/access';
import { database } from '$lib/server/db/pool';
import { filledIn, slip } from '$lib/server/forms';
import { openInvitations, withdraw } from '$lib/server/people/invitations';
import { inviteByLink, newPasswordByLink } from '$lib/server/people/inviting';
import { personByEmail } from '$lib/server/people/members';
import { everybody, leave, setKeeper } from '$lib/server/people/people';
import { plainFormOf, requiredKey } from '$lib/server/requests';

export const load = async ({ locals }) => {
	const person = keeperAt(locals);
	const [people, invitations] = await Promise.all([everybody(database()), openInvitations(database(), null)]);
	return { person, people, invitations };
};

const named = object({ person: requiredKey('The person') });
const lastKeeper = { refused: 'Somebody has to look after the installation. Let another do so first.' };

async function accountOf(request: Request) {
	const { person } = await plainFormOf(request, named);
	const account = (await everybody(database())).find(({ id }) => id === person);
	if (!account) error(404, 'There is no such person.');
	return account;
}

export const actions = {
	invite: async ({ locals, request, url }) => {
		const by = keeperAt(locals);
		const given = await filledIn(request, 'invite', installationInvitation);
		if ('failed' in given) return given.failed;
		const { email, keeper } = given.filled;
		const known = await personByEmail(database(), email);
		if (known) return slip('invite', given.values, { email: `${known.name} has this address, and is here already.` });
		return {
			made: await inviteByLink(
				database(),
				url.origin,
				by,
				{ email, courseId: null, role: null, keeper: keeper === 'on' },
				'the question banks'
			)
		};
	},
	withdraw: async ({ locals, request }) => {
		keeperAt(locals);
		const { invitation } = await plainFormOf(request, object({ invitation: requiredKey('The invitation') }));
		await withdraw(database(), null, invitation);
		return { done: 'That link leads nowhere any more.' };
	},
	password: async ({ locals, request, url }) => {
		const by = keeperAt(locals);
		return { made: await newPasswordByLink(database(), url.origin, by, await accountOf(request)) };
	},
	keeper: async ({ locals, request }) => {
		keeperAt(locals);
		const { person, keeper } = await plainFormOf(
			request,
			named.shape({ keeper: string().oneOf(['', '1']).default('') })
		);
		if (!(await setKeeper(database(), person, keeper === '1'))) return lastKeeper;
		return {
			done:
				keeper === '1' ? 'They look after the installation from now on.' : 'They no longer look after the installation.'
		};
	},
	leave: async ({ locals, request }) => {
		keeperAt(locals);
		const account = await accountOf(request);
		if (!(await leave(database(), account.id))) return lastKeeper;
		return {
			done: `${account.name} has left: signed out everywhere, and out of ${account.courses} courses. What they did stays in the ledger.`
		};
	}
};
