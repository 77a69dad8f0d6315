import pino from 'pino';

/** What a secret may be called in what is logged; its value is never written. */
const secrets = ['password', 'token', 'cookie', 'authorization', 'databaseUrl'];

/** What is written of an error: nothing of the values that it may carry. */
function told(error: unknown): object {
	const { name, message, code, stack } = error as Error & { code?: string };
	return { name, message, ...(code ? { code } : {}), stack };
}

/**
 * The log of this process: a line of JSON each, on the error output, with what failed and for which request, load or
 * dispatch. LOG_LEVEL says from which level on (debug, info, warn, error); info where nothing is said.
 */
export const log = pino(
	{
		level: process.env.LOG_LEVEL || 'info',
		base: { process: process.pid },
		timestamp: pino.stdTimeFunctions.isoTime,
		formatters: { level: (label) => ({ level: label }) },
		serializers: { error: told },
		redact: { paths: [...secrets, ...secrets.map((name) => `*.${name}`)], censor: '(hidden)' }
	},
	pino.destination({ fd: 2, sync: true })
);
