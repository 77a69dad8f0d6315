import { choiceKind } from './choice';

/** A statement that is true or false. */
export const trueFalse = choiceKind('True or false', false);
