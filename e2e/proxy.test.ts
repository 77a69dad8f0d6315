import { execFileSync, fork, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { request as plainRequest, type IncomingHttpHeaders } from 'node:http';
import { createServer, request as secureRequest, type Server } from 'node:https';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { demoLookIn } from '../demo/fill';

const folder = mkdtempSync(join(tmpdir(), 'barrow-proxy-'));
let application: ChildProcess;
let address = '';
let proxy: Server;
let port = 0;

interface Answer {
	status: number;
	headers: IncomingHttpHeaders;
	text: string;
}

/** Asks the proxy by https, or the application behind it by http. */
function ask(
	path: string,
	{
		method = 'GET',
		headers = {},
		body = '',
		straight = false
	}: {
		method?: string;
		headers?: Record<string, string>;
		body?: string;
		straight?: boolean;
	} = {}
): Promise<Answer> {
	return new Promise((resolve, reject) => {
		const options = { method, path, headers: { Accept: 'text/html', ...headers }, agent: false as const };
		const one = straight
			? plainRequest({ ...options, host: '127.0.0.1', port: new URL(address).port })
			: secureRequest({ ...options, host: '127.0.0.1', port, rejectUnauthorized: false });
		one.on('error', reject);
		one.on('response', (response) => {
			let text = '';
			response.setEncoding('utf8').on('data', (piece: string) => (text += piece));
			response.on('end', () => resolve({ status: response.statusCode!, headers: response.headers, text }));
		});
		one.end(body);
	});
}
const form = { 'Content-Type': 'application/x-www-form-urlencoded' };
const credentials = new URLSearchParams(demoLookIn).toString();

beforeAll(async () => {
	const [key, certificate] = [join(folder, 'key.pem'), join(folder, 'certificate.pem')];
	execFileSync(
		'openssl',
		[
			'req',
			'-x509',
			'-newkey',
			'rsa:2048',
			'-nodes',
			'-days',
			'2',
			'-subj',
			'/CN=barrow.example',
			'-keyout',
			key,
			'-out',
			certificate
		],
		{ stdio: 'ignore' }
	);
	application = fork(new URL('../test-support/serve-for-tests.ts', import.meta.url).pathname, {
		execArgv: ['--import', 'tsx'],
		env: { ...process.env, TRUST_PROXY: '1', JOB_THREADS: '0' },
		stdio: ['ignore', 'ignore', 'ignore', 'ipc']
	});
	address = await new Promise<string>((resolve, reject) => {
		application.on('message', (said) => resolve(String(said)));
		application.on('exit', (code) => reject(new Error(`the application ended with ${code}`)));
	});
	// a proxy as one is set up in front of an application: it ends https and says who asked for what
	proxy = createServer({ key: readFileSync(key), cert: readFileSync(certificate) }, (incoming, outgoing) => {
		const forwarded = plainRequest(
			{
				host: '127.0.0.1',
				port: new URL(address).port,
				method: incoming.method,
				path: incoming.url,
				headers: {
					'x-forwarded-host': incoming.headers.host ?? '',
					'x-forwarded-proto': 'https',
					...incoming.headers,
					'x-forwarded-for': `${incoming.headers['x-forwarded-for'] ?? '203.0.113.9'}, 127.0.0.1`
				}
			},
			(answer) => {
				outgoing.writeHead(answer.statusCode!, answer.headers);
				answer.pipe(outgoing);
			}
		);
		incoming.pipe(forwarded);
	});
	await new Promise<void>((resolve) => proxy.listen(0, '127.0.0.1', resolve));
	port = (proxy.address() as { port: number }).port;
});
afterAll(() => {
	application.kill('SIGKILL');
	proxy.close();
	rmSync(folder, { recursive: true, force: true });
});

describe('behind a proxy that ends https', () => {
	it('signs in with a cookie that goes by https alone, and is told to stay with https', async () => {
		const origin = `https://127.0.0.1:${port}`;
		const answer = await ask('/signin', { method: 'POST', headers: { ...form, origin }, body: credentials });
		expect(answer.status).toBe(303);
		expect(answer.headers['set-cookie']![0]).toMatch(/^barrow_session=.*; HttpOnly; Secure; SameSite=Lax/);
		expect(answer.headers['strict-transport-security']).toMatch(/^max-age=\d{7,}/);
		const cookie = answer.headers['set-cookie']![0]!.split(';')[0]!;
		expect((await ask('/', { headers: { cookie } })).text).toContain('Tides and Charts');
	});
	it('refuses what another site sends', async () => {
		const headers = { ...form, origin: 'https://elsewhere.example' };
		expect((await ask('/signin', { method: 'POST', headers, body: credentials })).status).toBe(403);
	});
	it.each(['barrow.example, other.example', 'barrow.example,', 'barrow.example:8443'])(
		'answers where several proxies have said who was asked: %s',
		async (host) => {
			expect((await ask('/signin', { headers: { 'x-forwarded-host': host } })).status).toBe(200);
		}
	);
	it.each(['barrow.example/signout', 'barrow.example#x', 'user@evil.example', 'a b', 'evil.example\\x', '-'])(
		'takes no path and nothing else for the name of the machine: %s',
		async (host) => {
			expect((await ask('/courses/1/loads', { headers: { 'x-forwarded-host': host } })).status).toBe(400);
		}
	);
	it('takes what a stranger says of the way by which it came for nothing', async () => {
		const answer = await ask('/signin', { headers: { 'x-forwarded-proto': 'javascript', 'x-barrow-proto': 'https' } });
		expect(answer.status).toBe(200);
		expect(answer.headers['strict-transport-security']).toBeUndefined();
	});
});

describe('every answer', () => {
	it('says how it may be used: not kept, not framed, not taken for another type', async () => {
		const { headers } = await ask('/signin', { straight: true });
		expect(headers).toMatchObject({
			'cache-control': 'private, no-store',
			'x-content-type-options': 'nosniff',
			'cross-origin-opener-policy': 'same-origin',
			'referrer-policy': 'same-origin'
		});
		expect(headers['content-security-policy']).toContain("frame-ancestors 'none'");
		expect(headers['x-request-id']).toMatch(/^[0-9a-f]{12}$/);
		expect((await ask('/icon.svg', { straight: true })).headers['x-content-type-options']).toBe('nosniff');
		expect(headers['strict-transport-security']).toBeUndefined();
	});
	it('says to anybody whether all is well, and nothing else', async () => {
		const answer = await ask('/health', { straight: true });
		expect(answer.status).toBe(200);
		expect(JSON.parse(answer.text)).toEqual({
			ready: true,
			database: 'answers',
			jobs: { waiting: expect.any(Number), running: expect.any(Number), leftBehind: expect.any(Number) },
			disk: expect.stringMatching(/enough|less/)
		});
	});
	it('comes also after a body that nobody wanted, on the same line', async () => {
		const socket = connect(Number(new URL(address).port), '127.0.0.1');
		let heard = '';
		socket.setEncoding('utf8').on('data', (text: string) => (heard += text));
		const body = 'x'.repeat(300_000);
		socket.write(
			`POST /courses/1/loads HTTP/1.1\r\nHost: a\r\nContent-Type: text/plain\r\nContent-Length: ${body.length}\r\n\r\n${body}GET /health HTTP/1.1\r\nHost: a\r\n\r\n`
		);
		for (let wait = 0; wait < 100 && !heard.includes('"ready"'); wait += 1)
			await new Promise((resolve) => setTimeout(resolve, 50));
		socket.destroy();
		expect(heard).toMatch(/^HTTP\/1\.1 4\d\d/);
		expect(heard).toContain('"ready":true');
	});
	it('is not waited for by a request that never comes to its end', async () => {
		const socket = connect(Number(new URL(address).port), '127.0.0.1');
		const closed = new Promise<string>((resolve) => {
			let heard = '';
			socket.setEncoding('utf8').on('data', (text: string) => (heard += text));
			socket.on('close', () => resolve(heard));
		});
		socket.write('GET /signin HTTP/1.1\r\nHost: a\r\n');
		expect(await closed).toMatch(/^HTTP\/1\.1 408/);
	});
});
