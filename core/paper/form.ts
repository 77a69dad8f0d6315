import { presented } from '../draws/presented';
import type { Question } from '../kinds';

/** A form as it was made, with what its parts say of their questions. */
export interface FormToPrint {
	seed: string;
	/** The questions of each part by their keys, in their order. */
	parts: readonly (readonly number[])[];
	/** The numbers of the parts as they are shown. */
	order: readonly number[];
}

/** What holds for all forms of a quiz. */
export interface FormRules {
	parts: readonly { title: string; pointsEach: number | null; shuffleOptions: boolean }[];
	/** The questions whose options keep their order. */
	fixedOptions: readonly number[];
}

/** One question of a form as its students get it. */
export interface FormQuestion {
	/** Its key in the bank, and its number on the paper from 1; a text has none. */
	id: number;
	number: number | null;
	part: number;
	question: Question;
	/** The order of its options, where they are shuffled. */
	order: number[] | undefined;
	points: number;
}

/** The questions of a form in the order of the paper; what is gone from the bank is left out. */
export function formQuestions(
	form: FormToPrint,
	{ parts, fixedOptions }: FormRules,
	questions: ReadonlyMap<number, Question>
): FormQuestion[] {
	const fixed = new Set(fixedOptions);
	let number = 0;
	return form.order.flatMap((part) =>
		(form.parts[part] ?? []).flatMap((id) => {
			const found = questions.get(id);
			if (!found) return [];
			const isText = found.kind === 'information';
			if (!isText) number += 1;
			const shuffles = (parts[part]?.shuffleOptions ?? true) && !fixed.has(id);
			const { question, order } = presented(found, form.seed, id, shuffles);
			return [
				{
					id,
					number: isText ? null : number,
					part,
					question,
					order,
					points: isText ? 0 : (parts[part]?.pointsEach ?? found.points ?? 0)
				}
			];
		})
	);
}
