import type { Pool } from 'mysql2/promise';
import { settings } from '../config';
import { invitationDays, invite, inviteAgain, type Invited } from './invitations';
import { sendLink } from './mail';

/** A link that was made: where it leads, whether it was also sent by mail. */
export interface MadeLink {
	link: string;
	to: string;
	sent: boolean;
}

/** Where the link of an invitation leads to. */
export const linkOf = (origin: string, token: string): string => `${origin}/invited/${token}`;

/** Invites somebody, and sends the link where there is a mail server; `where` is what they are invited to. */
export async function inviteByLink(
	pool: Pool,
	origin: string,
	by: { id: number; name: string },
	invited: Invited,
	where: string
): Promise<MadeLink> {
	const link = linkOf(origin, await invite(pool, invited, by.id));
	const sent = await sendLink(settings(), invited.email, {
		subject: `${by.name} invites you to ${where}`,
		words: `${by.name} invites you to ${where} in Yarn Barrow. The link is good for once, and for ${invitationDays} days.`,
		link
	});
	return { link, to: invited.email, sent };
}

/** Makes a link for somebody who is there, or has left, to choose a password anew, and sends it where there is a mail server. */
export async function newPasswordByLink(
	pool: Pool,
	origin: string,
	by: { id: number; name: string },
	person: { id: number; email: string }
): Promise<MadeLink> {
	const link = linkOf(origin, await inviteAgain(pool, person.id, by.id));
	const sent = await sendLink(settings(), person.email, {
		subject: 'A new password for Yarn Barrow',
		words: `${by.name} has made a link for you to choose a new password. It is good for once, and for ${invitationDays} days.`,
		link
	});
	return { link, to: person.email, sent };
}
