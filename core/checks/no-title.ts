import { beginning, fold, plainText } from '../markup/text';
import type { Question } from '../kinds';
import type { OneCheck } from './check';

const longest = 80;
const empty =
	/^(?:(?:copy of|kopie von|copie de|copia de|cópia de|copia di|kopie van) )?(?:(?:untitled|unnamed|new|blank|unbenannte|my) (?:question|item|problem|exercise|test|quiz|document|frage)|untitled|unnamed|no title|no name|without title|question without (?:a )?title|title|multiple[ -]choice|multiple[ -]response|single[ -]choice|true[ /-]?(?:or[ -])?false|short answer|numeric(?:al)?|matching|ordering|essay|x{2,}|todo|to do|tbd|tba|n\/?a|none|placeholder|temp|dummy|lorem ipsum|new|new question|question|item|problem|exercise|test|quiz|ohne titel|unbenannt|kein titel|neue frage|frage|aufgabe|sans titre|nouvelle question|sin título|nueva pregunta|pregunta|sem título|nova (?:pergunta|questão)|pergunta|questão|senza titolo|nuova domanda|domanda|quesito|zonder titel|naamloos|nieuwe vraag|vraag|q|nr|no)?[\s_#.:°º()-]*(?:n[°º.])?[\s_#.-]*(?:\d[\d.]*[a-z]?)?[\s_)-]*(?:\((?:copy|kopie|copie|copia|cópia|\d+)\))?[\s?!*…–—-]*$/iu;
const generated =
	/^(?:[a-z]{1,12}[-_]?\d[\w-]*|[0-9a-f]{8}-[0-9a-f-]{20,}|[a-z]+(?:_[a-z0-9]+)*_\d+|i?[0-9a-f]{16,})$/i;

/** Whether a title tells a question from others: that it is there, and more than a number or a name for machines. */
export const saysNothing = ({ title, identifier }: Pick<Question, 'title' | 'identifier'>): boolean => {
	const words = fold(title);
	return (
		empty.test(words) ||
		(words === identifier && !words.includes(' ')) ||
		(generated.test(words) && /_|[0-9a-f]{8}/i.test(words))
	);
};

/** A question has no title, or one that says nothing. */
export const noTitle: OneCheck = {
	id: 'no-title',
	version: 3,
	scope: 'one',
	title: 'No title that says anything',
	short: 'no title',
	severity: 'untidy',
	why: 'In lists, in quizzes and in what students ask about, a question is known by its title.',
	find(question) {
		if (question.kind === 'unreadable' || !saysNothing(question)) return [];
		const title = fold(question.title);
		return [
			{
				message: title
					? `“${title}” says nothing of what is asked. Give it a title that does.`
					: 'It has no title. Give it one that says what is asked.',
				words: title ? [title] : []
			}
		];
	},
	mend: {
		title: 'Take the start of the stem as its title',
		fits: (question) => titleOf(question) !== null,
		apply: (question) => {
			const title = saysNothing(question) ? titleOf(question) : null;
			return title === null ? question : { ...question, title };
		}
	}
};

/** The start of the stem; null where that says nothing either. */
function titleOf(question: Question): string | null {
	const title = beginning(plainText(question.stem), longest);
	return saysNothing({ title, identifier: question.identifier }) ? null : title;
}
