import type { ChoiceQuestion } from '../kinds/choice';
import { percent } from '../kinds/part';
import { letterAt, placesIn } from './letters';
import type { PaperKind } from './paper-kind';

/** A choice on paper: lettered options, of which one or several are marked. */
export function choiceOnPaper(several: boolean): PaperKind<ChoiceQuestion> {
	return {
		blocks: ({ options }, order) => [{ sort: 'options', several, options: order.map((at) => options[at]!.text) }],
		key: ({ options, combination }, order) => {
			const right = order.flatMap((at, place) => {
				const { credit } = options[at]!;
				if (credit <= 0) return [];
				return [letterAt(place) + (several && combination === 'all' ? '' : credit < 1 ? ` (${percent(credit)})` : '')];
			});
			return right.join(', ') + (several && combination === 'all' && right.length > 1 ? ', all of them' : '');
		},
		typing: several ? 'letters, as AC' : 'a letter, as B',
		read: ({ options }, order, typed) => {
			const places = placesIn(typed, options.length);
			if (!places)
				return { wrong: `“${typed}” names no options: write letters from A to ${letterAt(options.length - 1)}.` };
			if (!several && places.length > 1) return { wrong: `“${typed}” names several options; one is asked for.` };
			return { response: { options: places.map((place) => options[order[place]!]!.identifier) } };
		}
	};
}
