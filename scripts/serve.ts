import { createServer, type Server } from 'node:http';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { Trouble } from './words';

/** A running application. */
export interface Served {
	address: string;
	stop: () => Promise<void>;
}

type Handler = (
	request: import('node:http').IncomingMessage,
	response: import('node:http').ServerResponse,
	next: () => void
) => void;

/**
 * Serves the built application in this process. Behind a proxy that ends https, TRUST_PROXY=1 has it believe the
 * proxy's headers. Throws a Trouble where the port is taken.
 */
export async function serve(root: string, host: string, port: number): Promise<Served> {
	const trusted = process.env.TRUST_PROXY === '1';
	process.env.PROTOCOL_HEADER = 'x-forwarded-proto';
	process.env.HOST_HEADER = trusted ? 'x-forwarded-host' : 'host';
	process.env.BODY_SIZE_LIMIT = 'Infinity';
	process.chdir(root);
	const { handler } = (await import(pathToFileURL(join(root, 'build/handler.js')).href)) as { handler: Handler };
	const server: Server = createServer((request, response) => {
		if (!trusted) request.headers['x-forwarded-proto'] = 'http';
		else request.headers['x-forwarded-host'] ??= request.headers.host;
		handler(request, response, () => response.writeHead(404).end());
	});
	server.requestTimeout = 0;
	await new Promise<void>((resolve, reject) => {
		server.on('error', (error: NodeJS.ErrnoException) => {
			if (error.code === 'EADDRINUSE')
				reject(
					new Trouble(
						`Port ${port} is in use by another program. Stop that, or choose another: PORT=${port + 1} ./start`
					)
				);
			else if (error.code === 'EACCES')
				reject(new Trouble(`Port ${port} may not be used here. Choose one above 1023: PORT=4180 ./start`));
			else if (error.code === 'EADDRNOTAVAIL')
				reject(new Trouble(`This machine has no address ${host}. Set HOST to one that it has, such as 127.0.0.1.`));
			else reject(error);
		});
		server.listen(port, host, resolve);
	});
	const bound = (server.address() as { port: number }).port;
	return {
		address: `http://${host}:${bound}`,
		stop: () =>
			new Promise((resolve) => {
				server.close(() => resolve());
				server.closeIdleConnections();
				setTimeout(() => server.closeAllConnections(), 1500).unref();
				process.emit('sveltekit:shutdown' as never, 'SIGTERM' as never);
			})
	};
}
