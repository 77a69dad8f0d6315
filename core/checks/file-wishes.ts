import type { Question } from '../kinds';
import type { FileWish, MendTools } from './check';

/** A question whose files are replaced by what is there for each wish; the same one where nothing is. */
export function withGranted(question: Question, wishes: readonly FileWish[], { fileFor }: MendTools): Question {
	const granted = new Map(
		wishes.flatMap((wish) => {
			const file = fileFor?.(wish);
			return file ? [[wish.attachment.name, file] as const] : [];
		})
	);
	if (!granted.size) return question;
	return { ...question, attachments: question.attachments.map((file) => granted.get(file.name) ?? file) };
}
