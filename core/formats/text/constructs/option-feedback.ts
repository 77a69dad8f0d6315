import { feedbackOfOption } from '../fields';
import type { Construct } from './construct';

/** Feedback below an option, by its sign. */
export const optionFeedback: Construct = ({ block }, line) => block !== null && feedbackOfOption(block, line);
