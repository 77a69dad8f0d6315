import { createServer, type Server, type Socket } from 'node:net';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { sendLink } from './mail';

/** A mail server that takes everything (RFC 5321) and remembers it. */
let server: Server;
let heard = '';
beforeAll(async () => {
	server = createServer((socket: Socket) => {
		let inData = false;
		socket.write('220 quay ESMTP\r\n');
		socket.on('data', (bytes) => {
			for (const line of bytes.toString().split('\r\n').filter(Boolean)) {
				heard += `${line}\n`;
				if (inData) {
					if (line !== '.') continue;
					inData = false;
					socket.write('250 taken\r\n');
				} else if (line === 'DATA') {
					inData = true;
					socket.write('354 go on\r\n');
				} else if (line === 'QUIT') socket.end('221 bye\r\n');
				else socket.write('250 quay\r\n');
			}
		});
		socket.on('error', () => undefined);
	});
	await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
});
afterAll(() => server.close());
const mail = { subject: 'You are invited', words: 'Ada Fenn invites you.', link: 'http://127.0.0.1/invited/abc' };

describe('a link by mail', () => {
	it('is sent where a mail server is named', async () => {
		const { port } = server.address() as AddressInfo;
		const mailing = { smtpUrl: `smtp://127.0.0.1:${port}`, mailFrom: 'barrow@gullhaven.example' };
		expect(await sendLink(mailing, 'bo@gullhaven.example', mail)).toBe(true);
		expect(heard).toMatch(/RCPT TO:<bo@gullhaven.example>/);
		expect(heard).toContain('Subject: You are invited');
		expect(heard).toContain('http://127.0.0.1/invited/abc');
	});
	it('is not sent where none is named, or it does not answer: the link is shown all the same', async () => {
		expect(await sendLink({ smtpUrl: '', mailFrom: 'a@b' }, 'bo@gullhaven.example', mail)).toBe(false);
		expect(await sendLink({ smtpUrl: 'smtp://127.0.0.1:1', mailFrom: 'a@b' }, 'bo@gullhaven.example', mail)).toBe(
			false
		);
	});
});
