import { object, ref, string } from 'yup';
import { ticked } from './ticked';

const invisible = /[\p{Cc}\p{Cf}]/u;
const seen = (text: string | undefined) => !invisible.test(text ?? '');

/** What somebody is called. */
export const personName = string()
	.trim()
	.max(120, 'A name has 120 letters at the most.')
	.required('Write a name.')
	.test('seen', 'There are signs in the name that cannot be seen. Type it anew.', seen);

/** An e-mail address, with which one signs in. */
export const personEmail = string()
	.trim()
	.lowercase()
	.max(190, 'An e-mail address has 190 letters at the most.')
	.matches(/^[^\s@]+@[^\s@]+$/, 'That is no e-mail address.')
	.required('Write an e-mail address.')
	.test('seen', 'There are signs in the e-mail address that cannot be seen. Type it anew.', seen);

const leastOfPassword = 10;

/** A new password: long enough, whatever it is made of (NIST SP 800-63B, 5.1.1). */
export const newPassword = string()
	.min(leastOfPassword, `A password has ${leastOfPassword} letters at the least.`)
	.max(1000, 'A password has 1,000 letters at the most.')
	.required('Choose a password.');

/** A new password in the place of one that is forgotten. */
export const choosing = object({ password: newPassword });

/** Somebody who signs in. */
export const signing = object({
	email: string()
		.trim()
		.max(190, 'An e-mail address has 190 letters at the most.')
		.required('Write your e-mail address.')
		.test('seen', 'There are signs in the e-mail address that cannot be seen. Type it anew.', seen),
	password: string().max(1000, 'A password has 1,000 letters at the most.').required('Write your password.')
});

/** Somebody who joins by an invitation. */
export const joining = object({ name: personName, email: personEmail, password: newPassword });

/** One's own name. */
export const ownName = object({ name: personName });

/** A change of one's password, with the one that it was. */
export const passwordChange = object({
	before: string().max(1000).required('Write the password that you have now.'),
	password: newPassword,
	again: string()
		.oneOf([ref('password')], 'The two are not the same.')
		.required('Write the new password once more.')
});

/** What somebody may do in a course: look, work on its questions and quizzes, or manage it with its people. */
export const roles = ['look', 'work', 'manage'] as const;

/** Somebody who is to belong to a course. */
export const invitation = object({
	email: personEmail,
	role: string().oneOf(roles, 'Choose what they may do.').required('Choose what they may do.')
});

/** Somebody who is to look after the installation, or simply to have an account. */
export const installationInvitation = object({
	email: personEmail,
	keeper: ticked
});
