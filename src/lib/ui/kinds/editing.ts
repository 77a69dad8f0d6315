import type { Question } from '$core/kinds';
import type { Attachment } from '$core/model/question';

/** What a component is given that edits what is its own in a question of one kind; the question is bound. */
export interface Editing<Of extends Question = Question> {
	question: Of;
	attachments: Attachment[];
	courseId: number;
}
