import { serve } from '../scripts/serve';

const served = await serve(
	new URL('..', import.meta.url).pathname.replace(/\/$/, ''),
	'127.0.0.1',
	Number(process.env.PORT ?? 0)
);
process.send?.(served.address);
process.on('SIGTERM', () => void served.stop().then(() => process.exit(0)));
