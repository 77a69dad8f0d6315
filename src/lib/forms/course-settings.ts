import { array, number, object, string, type InferType } from 'yup';
import { checks } from '$core/checks';
import { severities, type Severity } from '$core/reports/report';
import { typedNumber, typedNumbers } from './typed-number';

/** Shares in percent, out of text such as “50, 33.3, 25”. */
const steps = (_value: unknown, original: unknown): unknown =>
	Array.isArray(original) ? original : typedNumbers(String(original ?? ''));

/** A check with a severity of its own in a course. */
const severityOf = new RegExp(`^(?:${checks.map(({ id }) => id).join('|')}) (?:${severities.join('|')})$`);

/** What a course goes by. */
export const courseSettings = object({
	/** The language of questions that are made by hand, as RFC 5646 has it; empty for none. */
	language: string()
		.trim()
		.matches(/^$|^[a-zA-Z]{2,8}(-[a-zA-Z0-9]{1,8})*$/, 'A language is written as en, de or pt-BR.')
		.max(35)
		.default(''),
	/** The points of questions that are made by hand; null for none. */
	points: number()
		.transform((value: number, original: unknown) => {
			if (original === '' || original === null) return null;
			return typeof original === 'string' ? typedNumber(original) : value;
		})
		.typeError('Points have to be a number.')
		.min(0, 'Points are 0 or more.')
		.max(1e6, 'A question has 1,000,000 points at the most.')
		.nullable()
		.default(1),
	/** The shares of credit that loads may bring, in percent; none for any. */
	creditSteps: array(
		number()
			.typeError('Write shares in percent with a blank between them, such as 50, 33.3, 25.')
			.min(-100, 'A share is -100 to 100 percent.')
			.max(100, 'A share is -100 to 100 percent.')
			.required()
	)
		.transform(steps)
		.max(60, '60 shares are the most.')
		.default([]),
	/** What becomes of a credit that is none of them. */
	creditOtherwise: string()
		.oneOf(['keep', 'aside'] as const)
		.default('keep'),
	/** What a load does with questions in error. */
	errors: string()
		.oneOf(['nothing', 'aside', 'each'] as const)
		.default('aside'),
	/** What becomes of questions that the course has already: the same, and changed ones. */
	same: string()
		.oneOf(['skip', 'beside', 'replace'] as const)
		.default('skip'),
	changed: string()
		.oneOf(['skip', 'beside', 'replace'] as const)
		.default('beside'),
	/** The checks that are off in this course, by their ids. */
	checksOff: array(
		string()
			.oneOf(
				checks.map(({ id }) => id),
				'There is no such check.'
			)
			.required()
	)
		.transform((_value: unknown, original: unknown) =>
			(Array.isArray(original) ? (original as unknown[]) : [original]).filter(
				(id) => typeof id === 'string' && id !== ''
			)
		)
		.default(checks.filter(({ isOff }) => isOff).map(({ id }) => id)),
	/** Checks that are more or less grave in this course than elsewhere: “ID severity” each. */
	severities: array(string().matches(severityOf, 'That is no severity of a check.').required())
		.transform((_value: unknown, original: unknown) =>
			(Array.isArray(original) ? (original as unknown[]) : [original]).filter(
				(one) => typeof one === 'string' && one !== ''
			)
		)
		.default([])
});

/** The same as a type. */
export type CourseSettings = InferType<typeof courseSettings>;

/** The severities of a course, by the ids of the checks. */
export const severitiesOf = ({ severities: given }: Pick<CourseSettings, 'severities'>): Map<string, Severity> =>
	new Map(given.map((one) => one.split(' ') as [string, Severity]));

/** The settings of a course that nobody has changed. */
export const plainSettings: CourseSettings = courseSettings.getDefault();
