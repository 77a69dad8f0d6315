import type { Line } from '../lines';
import type { TextState } from '../state';

/**
 * Something that a line of a marked text can be. It takes the line into what was read, and gives whether it did; what it
 * is not, it leaves as it was. `at` is the place of the line among those that are at hand.
 */
export type Construct = (state: TextState, line: Line, at: number) => boolean;
