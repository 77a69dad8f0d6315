import { object, string, type InferType } from 'yup';
import { joining } from './person';
import { ticked } from './ticked';

const code = string()
	.trim()
	.max(40, 'A code has 40 letters at the most.')
	.matches(/^[^\p{Cc}\p{Cf}]*$/u, 'There are signs in the code that cannot be seen.')
	.required('Give the course a code, such as TC-S27.');
const name = string()
	.trim()
	.max(190, 'A name has 190 letters at the most.')
	.matches(/^[^\p{Cc}\p{Cf}]*$/u, 'There are signs in the name that cannot be seen.')
	.required('Give the course a name.');
const intake = string()
	.trim()
	.max(80, 'An intake has 80 letters at the most.')
	.matches(/^[^\p{Cc}\p{Cf}]*$/u, 'There are signs in the intake that cannot be seen.')
	.default('');

/** What a course is called: its code, which no other has, its name and its intake. */
export const courseDetails = object({ code, name, intake });

/** The same as a type. */
export type CourseDetails = InferType<typeof courseDetails>;

/** What a copy of a course is called, and what of it is copied beside its banks. */
export const courseCopy = courseDetails.shape({ quizzes: ticked, rules: ticked });

/** The first person of an installation, with the first course. */
export const beginning = joining.shape({ code, course: name, intake });
