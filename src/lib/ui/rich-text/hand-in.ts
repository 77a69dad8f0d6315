import type { Attachment } from '$core/model/question';

/** Hands a file in for the question that is being edited; gives it as an attachment, or null where it was refused. */
export type HandIn = (file: File) => Promise<Attachment | null>;

/** Under which an editor of a question offers that to the texts in it. */
export const handInKey = Symbol('hand in a file');
