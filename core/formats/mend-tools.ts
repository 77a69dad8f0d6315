import type { MendTools } from '../checks/check';
import { readAgain } from './read-again';

/** What mends need beside the question, out of the readers. */
export const mendTools: MendTools = { readAgain };
