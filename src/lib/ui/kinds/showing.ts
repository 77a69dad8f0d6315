import type { Question } from '$core/kinds';
import type { Response } from '$core/kinds/kind';
import type { Markup } from '$core/model/question';

/** What a component is given that shows a question of one kind below its stem. */
export interface Showing<Of extends Question = Question> {
	question: Of;
	/** With "key" what is right is shown, with "try" it can be answered. */
	mode: 'key' | 'try';
	/** The response so far; `onanswer` is told of each change to it, and `give` asks to have it marked. */
	answer: Response;
	onanswer: (response: Response) => void;
	give: () => void;
	/** The order of its options by their places, where a sitting has shuffled them. */
	order: number[] | undefined;
	/** Rich text as HTML for this page. */
	html: (markup: Markup) => string;
	/** The address of a file of the question, or null where it is missing. */
	picture: (name: string) => string | null;
}
