import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { Trouble } from './words';

/** A running application. */
export interface Served {
	address: string;
	stop: () => Promise<void>;
}

/** Where it serves. */
interface Place {
	host: string;
	port: number;
	/** Believes the headers of a proxy that ends https. */
	trustProxy: boolean;
}

type Handler = (request: IncomingMessage, response: ServerResponse, next: () => void) => void;

/** How long a request may take to arrive, its headers alone and all of it, in milliseconds. */
const patience = { headers: 20_000, request: 120_000, check: 5000 };
const hostName = /^(?:[a-z0-9](?:[a-z0-9._-]*[a-z0-9.])?|\[[0-9a-f:.]+\])(?::\d{1,5})?$/i;

/** The first of the values that proxies have put into a header one behind the other. */
const firstOf = (header: string | string[] | undefined) =>
	String(header ?? '')
		.split(',')[0]!
		.trim();

/**
 * Says to the application who asks and by which address, in headers of our own, so that nothing that a stranger sends
 * is taken for it. Gives false where the address is none.
 */
function settleHeaders(request: IncomingMessage, trusted: boolean): boolean {
	const { headers } = request;
	const forwarded = trusted ? firstOf(headers['x-forwarded-host']) : '';
	const host = forwarded || headers.host || '';
	// the last one is what our own proxy has seen; those before it are what others have said
	const from = trusted
		? String(headers['x-forwarded-for'] ?? '')
				.split(',')
				.at(-1)!
				.trim()
		: '';
	headers['x-barrow-host'] = host;
	headers['x-barrow-proto'] = trusted && firstOf(headers['x-forwarded-proto']) === 'https' ? 'https' : 'http';
	headers['x-barrow-address'] = from || (request.socket.remoteAddress ?? 'unknown');
	return hostName.test(host);
}

/** So many bytes of a request that nobody wanted are taken off the line before the line is cut. */
const mostUnwanted = 32 * 2 ** 20;

/** Takes the rest of a request off the line once it is answered, so that the next one on the same line is heard. */
function drain(request: IncomingMessage): void {
	if (request.complete || request.destroyed) return;
	let size = 0;
	request.removeAllListeners('data');
	request.on('data', (piece: Buffer) => {
		size += piece.length;
		if (size > mostUnwanted) request.destroy();
	});
	request.resume();
}

function sayWhy(error: NodeJS.ErrnoException, { host, port }: Place): Error {
	if (error.code === 'EADDRINUSE')
		return new Trouble(
			`Port ${port} is in use by another program. Stop that, or choose another: PORT=${port + 1} ./start`
		);
	if (error.code === 'EACCES')
		return new Trouble(`Port ${port} may not be used here. Choose one above 1023: PORT=4180 ./start`);
	if (error.code === 'EADDRNOTAVAIL' || error.code === 'ENOTFOUND')
		return new Trouble(`This machine has no address ${host}. Set HOST to one that it has, such as 127.0.0.1.`);
	return error;
}

/**
 * Serves the built application in this process. Throws a Trouble where the port is taken.
 */
export async function serve(root: string, place: Place): Promise<Served> {
	process.env.PROTOCOL_HEADER = 'x-barrow-proto';
	process.env.HOST_HEADER = 'x-barrow-host';
	process.env.ADDRESS_HEADER = 'x-barrow-address';
	// each endpoint has a limit of its own (src/lib/server/requests.ts)
	process.env.BODY_SIZE_LIMIT = 'Infinity';
	process.chdir(root);
	const { handler } = (await import(pathToFileURL(join(root, 'build/handler.js')).href)) as { handler: Handler };
	const server: Server = createServer({ connectionsCheckingInterval: patience.check }, (request, response) => {
		response.setHeader('X-Content-Type-Options', 'nosniff');
		response.on('finish', () => drain(request));
		if (settleHeaders(request, place.trustProxy))
			handler(request, response, () =>
				response.writeHead(404, { 'Content-Type': 'text/plain' }).end('Nothing is here.')
			);
		else
			response
				.writeHead(400, { 'Content-Type': 'text/plain' })
				.end('The Host of this request is no name of a machine.');
	});
	server.headersTimeout = patience.headers;
	server.requestTimeout = patience.request;
	await new Promise<void>((resolve, reject) => {
		server.on('error', (error) => reject(sayWhy(error, place)));
		server.listen(place.port, place.host, resolve);
	});
	const bound = (server.address() as { port: number }).port;
	return {
		address: `http://${place.host}:${bound}`,
		stop: () =>
			new Promise((resolve) => {
				server.close(() => resolve());
				server.closeIdleConnections();
				setTimeout(() => server.closeAllConnections(), 1500).unref();
				process.emit('sveltekit:shutdown' as never, 'SIGTERM' as never);
			})
	};
}
