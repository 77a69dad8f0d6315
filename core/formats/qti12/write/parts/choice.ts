import type { ChoiceQuestion } from '../../../../kinds';
import { allOf, anyOf, condition, equals, not, setvar } from '../conditions';
import { material } from '../html';
import { label, names, stemOf, yesNo, type Address, type Parts } from './parts';

/** How a question with options is asked and marked. */
export function choiceParts(question: ChoiceQuestion, scale: number, address: Address): Parts {
	const idents = names(question.options, 'C');
	const several = question.kind === 'multiple-response';
	const labels = question.options
		.map((option, at) => label(idents[at]!, material(option.text, address), option.pinned ? ' rshuffle="No"' : ''))
		.join('');
	const presentation = `${stemOf(question.stem, address)}<response_lid ident="R" rcardinality="${several ? 'Multiple' : 'Single'}"><render_choice${yesNo(question.shuffle)}>${labels}</render_choice></response_lid>`;
	const test = (at: number) => equals('R', idents[at]!);
	const places = question.options.map((_, at) => at);
	const right = places.filter((at) => question.options[at]!.credit > 0);
	const shown = places.flatMap((at) =>
		question.options[at]!.feedback
			? [condition(test(at), `<displayfeedback feedbacktype="Response" linkrefid="option ${at + 1}"/>`, true)]
			: []
	);
	const feedback = places.flatMap((at) =>
		question.options[at]!.feedback ? [{ ident: `option ${at + 1}`, markup: question.options[at]!.feedback }] : []
	);
	if (!several) {
		const best = Math.max(...question.options.map((option) => option.credit));
		return {
			presentation,
			points: places
				.filter((at) => question.options[at]!.credit !== 0)
				.map((at) => condition(test(at), setvar(question.options[at]!.credit * scale, 'Set'), false)),
			right: best >= 1 ? anyOf(places.filter((at) => question.options[at]!.credit >= 1).map(test)) : '',
			shown,
			feedback
		};
	}
	const whole = right.length ? allOf(places.map((at) => (right.includes(at) ? test(at) : not(test(at))))) : '';
	return {
		presentation,
		points:
			question.combination === 'all'
				? whole
					? [condition(whole, setvar(scale, 'Set'), false)]
					: []
				: places
						.filter((at) => question.options[at]!.credit !== 0)
						.map((at) => condition(test(at), setvar(question.options[at]!.credit * scale, 'Add'), true)),
		right: whole,
		shown,
		feedback
	};
}
