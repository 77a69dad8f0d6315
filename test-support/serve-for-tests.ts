import { serve } from '../scripts/serve';

const served = await serve(new URL('..', import.meta.url).pathname.replace(/\/$/, ''), {
	host: '127.0.0.1',
	port: Number(process.env.PORT ?? 0),
	trustProxy: process.env.TRUST_PROXY === '1'
});
process.send?.(served.address);
process.on('SIGTERM', () => void served.stop().then(() => process.exit(0)));
