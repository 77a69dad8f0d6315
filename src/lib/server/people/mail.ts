import { createTransport } from 'nodemailer';
import { log } from '../log';

/** The mail server and who sends; no mail is sent where the first is empty. */
export interface Mailing {
	smtpUrl: string;
	mailFrom: string;
}

/** How long a mail server may take for each step, in milliseconds. */
const patience = 10_000;

/** Sends a link to somebody; false where no mail server is named, or it did not take the mail, which the log tells. */
export async function sendLink(
	{ smtpUrl, mailFrom }: Mailing,
	to: string,
	{ subject, words, link }: { subject: string; words: string; link: string }
): Promise<boolean> {
	if (!smtpUrl) return false;
	const transport = createTransport({
		url: smtpUrl,
		connectionTimeout: patience,
		greetingTimeout: patience,
		socketTimeout: patience
	} as never);
	try {
		await transport.sendMail({ from: mailFrom, to, subject, text: `${words}\n\n${link}\n` });
		return true;
	} catch (error) {
		log.warn({ error }, 'a mail could not be sent');
		return false;
	} finally {
		transport.close();
	}
}
