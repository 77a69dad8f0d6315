import { error, redirect } from '@sveltejs/kit';
import { object, string } from 'yup';
import { courseDetails } from '$lib/forms/course';
import { courseSettings } from '$lib/forms/course-settings';
import { invitation, roles } from '$lib/forms/person';
import { courseAt } from '$lib/server/access';
import { mayDo, type Course } from '$lib/server/courses/courses';
import { moveCourse, renameCourse } from '$lib/server/courses/make';
import { saveSettings, settingsOf } from '$lib/server/courses/settings';
import { database } from '$lib/server/db/pool';
import { filledIn, slip } from '$lib/server/forms';
import { record } from '$lib/server/ledger/ledger';
import { openInvitations, withdraw } from '$lib/server/people/invitations';
import { inviteByLink } from '$lib/server/people/inviting';
import { membersOf, othersManage, personByEmail, removeMember, setRole } from '$lib/server/people/members';
import { plainFormOf, requiredKey } from '$lib/server/requests';

export const load = async ({ locals, params }) => {
	const { course } = await courseAt(locals, params);
	const db = database();
	const mayManage = mayDo(course.role, 'manage');
	const [members, invitations, settings] = await Promise.all([
		membersOf(db, course.id),
		mayManage ? openInvitations(db, course.id) : [],
		settingsOf(db, course.id)
	]);
	return { members, invitations, settings, mayManage };
};

const named = object({ person: requiredKey('The person') });
const alone = {
	refused: 'Somebody has to manage this course. Let another manage it first.'
};

async function memberOf(course: Course, personId: number) {
	const found = (await membersOf(database(), course.id)).find(({ id }) => id === personId);
	if (!found) error(404, 'That person does not belong to this course.');
	return found;
}

const said = { look: 'may look', work: 'may work', manage: 'manages' };

export const actions = {
	rename: async ({ locals, params, request }) => {
		const { course, person } = await courseAt(locals, params, 'manage');
		const given = await filledIn(request, 'rename', courseDetails);
		if ('failed' in given) return given.failed;
		const done = await renameCourse(database(), course.id, person.id, given.filled);
		if ('taken' in done) return slip('rename', given.values, { code: done.taken });
		return { done: 'The course is called that from now on.' };
	},
	settings: async ({ locals, params, request }) => {
		const { course, person } = await courseAt(locals, params, 'manage');
		const given = await filledIn(request, 'settings', courseSettings);
		if ('failed' in given) return given.failed;
		await saveSettings(database(), course.id, person.id, given.filled);
		return { done: 'The settings are kept. Loads begin with these rules, and hand-made questions with these values.' };
	},
	invite: async ({ locals, params, request, url }) => {
		const { course, person } = await courseAt(locals, params, 'manage');
		const given = await filledIn(request, 'invite', invitation);
		if ('failed' in given) return given.failed;
		const { email, role } = given.filled;
		const db = database();
		const known = await personByEmail(db, email);
		const deed = { courseId: course.id, personId: person.id, questions: 0, address: `/courses/${course.id}/settings` };
		if (!known) {
			const where = `${course.name} (${course.code})`;
			const made = await inviteByLink(
				db,
				url.origin,
				person,
				{ email, courseId: course.id, role, keeper: false },
				where
			);
			await record(db, { ...deed, deed: 'invited', subject: `${email}, who ${said[role]}` });
			return { made };
		}
		if (role !== 'manage' && !(await othersManage(db, course.id, known.id))) return alone;
		await setRole(db, course.id, known.id, role);
		await record(db, { ...deed, deed: 'let in', subject: `${known.name}, who ${said[role]}` });
		return { done: `${known.name} belongs to this course and ${said[role]}.` };
	},
	role: async ({ locals, params, request }) => {
		const { course, person } = await courseAt(locals, params, 'manage');
		const given = await plainFormOf(request, named.shape({ role: string().oneOf(roles).required() }));
		const member = await memberOf(course, given.person);
		const db = database();
		if (given.role !== 'manage' && !(await othersManage(db, course.id, member.id))) return alone;
		await setRole(db, course.id, member.id, given.role);
		await record(db, {
			courseId: course.id,
			personId: person.id,
			deed: 'changed what somebody may do',
			subject: `${member.name} ${said[given.role]}`,
			questions: 0
		});
		return { done: `${member.name} ${said[given.role]} from now on.` };
	},
	out: async ({ locals, params, request }) => {
		const { course, person } = await courseAt(locals, params);
		const given = await plainFormOf(request, named);
		// everybody may leave; others are taken out by those who manage
		if (given.person !== person.id) await courseAt(locals, params, 'manage');
		const member = await memberOf(course, given.person);
		const db = database();
		if (!(await othersManage(db, course.id, member.id))) return alone;
		await removeMember(db, course.id, member.id);
		await record(db, {
			courseId: course.id,
			personId: person.id,
			deed: given.person === person.id ? 'left the course' : 'took out of the course',
			subject: member.name,
			questions: 0
		});
		if (given.person === person.id && !person.keeper) redirect(303, '/');
		return { done: `${member.name} no longer belongs to this course. What they did stays in the ledger.` };
	},
	withdraw: async ({ locals, params, request }) => {
		const { course } = await courseAt(locals, params, 'manage');
		const given = await plainFormOf(request, object({ invitation: requiredKey('The invitation') }));
		await withdraw(database(), course.id, given.invitation);
		return { done: 'That link leads nowhere any more.' };
	},
	state: async ({ locals, params, request }) => {
		const { course, person } = await courseAt(locals, params, 'manage');
		const { state } = await plainFormOf(
			request,
			object({
				state: string()
					.oneOf(['open', 'archived', 'binned'] as const)
					.required()
			})
		);
		await moveCourse(database(), course, person.id, state);
		if (state === 'binned') redirect(303, '/');
		return {
			done:
				state === 'open'
					? 'The course is open again.'
					: 'The course is in the archive: it can be looked at and dispatched from, and nothing in it is changed.'
		};
	}
};
