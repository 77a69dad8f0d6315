import { number, object, string, ValidationError } from 'yup';
import { Trouble } from './words';

const loopback = new Set(['127.0.0.1', '::1', 'localhost']);

const shape = object({
	HOST: string().default('127.0.0.1'),
	PORT: number()
		.typeError('PORT has to be a number, such as 4180')
		.integer('PORT has to be a whole number, such as 4180')
		.min(0, 'PORT has to be between 0 and 65535')
		.max(65_535, 'PORT has to be between 0 and 65535')
		.default(4180),
	DEMO: string().oneOf(['0', '1'], 'DEMO has to be 1 or 0'),
	TRUST_PROXY: string().oneOf(['0', '1'], 'TRUST_PROXY has to be 1 or 0').default('0')
});

/** What a start needs to know beside the settings of the application itself. */
export interface StartSettings {
	host: string;
	port: number;
	/** Fill an empty database with the demo. Its password is known to all, so it is off where others can reach the address. */
	demo: boolean;
	trustProxy: boolean;
}

/** Reads the settings of a start. Throws a Trouble that names the setting and what it has to be. */
export function startSettings(environment: Record<string, string | undefined>): StartSettings {
	try {
		const given = shape.validateSync(
			Object.fromEntries(Object.entries(environment).filter(([, value]) => value !== '')),
			{ stripUnknown: true }
		);
		return {
			host: given.HOST,
			port: given.PORT,
			demo: given.DEMO ? given.DEMO === '1' : loopback.has(given.HOST),
			trustProxy: given.TRUST_PROXY === '1'
		};
	} catch (error) {
		throw new Trouble(`A setting is wrong: ${(error as ValidationError).message}.`);
	}
}
