import type { Fields } from '../model/fields';
import { string } from 'yup';
import type { QuestionCommon } from '../model/question';
import type { KindOf } from './kind';
import { unmarked } from './unmarked';

const fields = {
	/** The media type that is asked for, where the source names one. */
	accepts: string().nullable().defined()
};

/** A question answered with a file that a person marks. */
export type FileUploadQuestion = { kind: 'file-upload' } & QuestionCommon & Fields<typeof fields>;

/** A question answered with a file that a person marks. */
export const fileUpload: KindOf<FileUploadQuestion> = {
	...unmarked('person', 'A person has to mark this.'),
	name: 'File upload',
	fields,
	content: ({ accepts }) => ({ accepts }),
	parts: ({ accepts }) => [{ name: 'files that are taken', text: accepts ?? '' }]
};
