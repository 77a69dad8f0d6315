import { choiceKind } from './choice';

/** A question whose answer is one of its options. */
export const multipleChoice = choiceKind('Multiple choice', false);
