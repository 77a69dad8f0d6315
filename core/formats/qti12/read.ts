import type { DocumentReader } from '../format';
import { Document12 } from './document';

/** Reads a QTI 1.2 document, one item at a time, with its sections as categories and its assessments as quizzes. */
export const readQti12: DocumentReader = (context) => new Document12(context).events();
