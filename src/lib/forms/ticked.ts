import { string } from 'yup';

/** A box that is ticked or not: as a form sends it, or as the page knows it. */
export const ticked = string()
	.transform((value: unknown, original: unknown) =>
		typeof original === 'boolean' ? (original ? 'on' : '') : (value as string)
	)
	.oneOf(['', 'on'])
	.default('');
