import { choiceKind } from './choice';

/** A question whose answer is any of its options. */
export const multipleResponse = choiceKind('Multiple response', true);
