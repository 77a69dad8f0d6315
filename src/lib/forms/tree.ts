import { string, ValidationError } from 'yup';

const seen = /^[^\p{Cc}\p{Cf}]*$/u;

/** The name of a bank. */
export const bankName = string()
	.trim()
	.max(190, 'The name of a bank has 190 letters at the most.')
	.matches(seen, 'There are signs in the name that cannot be seen.')
	.required('Give the bank a name.');

/** The name of a category. */
export const categoryName = string()
	.trim()
	.max(255, 'The name of a category has 255 letters at the most.')
	.matches(seen, 'There are signs in the name that cannot be seen.')
	.required('Give the category a name.');

/** The reference code of a category. */
export const categoryCode = string().trim().max(60, 'A code has 60 letters at the most.').default('');

/** What a bank is for, in words. */
export const bankDescription = string().trim().max(4000, 'A description has 4,000 letters at the most.').default('');

/** What is wrong with what was filled in, in words; empty where nothing is. */
export function slipOf(schema: { validateSync: (filled: unknown) => unknown }, filled: unknown): string {
	try {
		schema.validateSync(filled);
		return '';
	} catch (cause) {
		if (cause instanceof ValidationError) return cause.message;
		throw cause;
	}
}
