import { kindOf, type Question } from '../kinds';
import { rich, type Part } from '../kinds/part';

/** Everything that a question says, in parts with names, in the order in which it is read. */
export function partsOf(question: Question): Part[] {
	return [
		{ name: 'kind', text: question.kind },
		{ name: 'title', text: question.title },
		...(question.stimulus ? [rich('what several questions share', question.stimulus.content)] : []),
		rich('stem', question.stem),
		{ name: 'points', text: question.points === null ? '' : String(question.points) },
		{ name: 'category', text: question.category.join(' › ') },
		{ name: 'tags', text: [...question.tags].sort().join(', ') },
		...kindOf(question).parts(question),
		...Object.entries(question.feedback).flatMap(([name, markup]) =>
			markup ? [rich(`feedback, ${name}`, markup)] : []
		),
		...question.hints.map((hint, at) => rich(`hint ${at + 1}`, hint)),
		{ name: 'difficulty', text: question.difficulty ?? '' },
		{ name: 'language', text: question.language ?? '' },
		{ name: 'kept beside it', text: question.metadata.map(({ name, value }) => `${name}: ${value}`).join('; ') }
	];
}
