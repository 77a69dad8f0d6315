import { beginning, plainText } from '../markup/text';
import { kindName, type Question } from '.';

/** So many letters of a stem are enough to know a question by. */
const longest = 80;

/** What a question is called for people: its title, else the start of its stem, else its kind. */
export function called(question: Question): string {
	return question.title || beginning(plainText(question.stem), longest) || kindName(question.kind);
}
