import type { Pool } from 'mysql2/promise';
import { wordDocument } from '$core/paper/word/document';
import { drawingType, drawnPictures } from '../files/drawings';
import { picturesOf, printedForms, type printAsked } from './print';

/** Forms of a quiz, or their keys, as a Word document, with what the quiz is called; null where there are none such. */
export async function formsInWord(
	pool: Pool,
	courseId: number,
	quizId: number,
	id: number,
	asked: ReturnType<typeof printAsked>
): Promise<{ title: string; bytes: Uint8Array } | null> {
	const printed = await printedForms(pool, courseId, quizId, id, asked);
	if (!printed) return null;
	const pictures = asked.what === 'keys' ? new Map<string, Uint8Array>() : await picturesOf(pool, courseId, printed);
	const drawings = printed.forms.flatMap(({ questions }) =>
		questions.flatMap(({ attachments }) =>
			attachments.flatMap(({ hash, mediaType }) => (hash && mediaType === drawingType ? [hash] : []))
		)
	);
	const drawn = await drawnPictures(pictures, new Set(drawings));
	return { title: printed.title, bytes: wordDocument(printed, (hash) => pictures.get(hash), drawn) };
}
