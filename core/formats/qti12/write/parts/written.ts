import type { ShortAnswerQuestion, NumericQuestion } from '../../../../kinds';
import { anyOf, condition, numberTest, setvar, textTest } from '../conditions';
import { byCredit, fib, stemOf, type Address, type Parts } from './parts';

/** How a question that is answered with a word or a number is asked and marked. */
export function writtenParts(question: ShortAnswerQuestion | NumericQuestion, scale: number, address: Address): Parts {
	const numeric = question.kind === 'numeric';
	const tests = numeric
		? byCredit(question.accepted).map((one) => ({ test: numberTest('R', one), credit: one.credit }))
		: byCredit(question.accepted).map((one) => ({ test: textTest('R', one), credit: one.credit }));
	const type = numeric ? (question.whole ? 'Integer' : 'Decimal') : 'String';
	const slider =
		numeric && question.slider
			? `<render_slider lowerbound="${question.slider.lower}" upperbound="${question.slider.upper}"${question.slider.step === null ? '' : ` step="${question.slider.step}"`}/>`
			: null;
	const response = numeric
		? `<response_num ident="R" rcardinality="Single" numtype="${type}">${slider ?? fib(type)}</response_num>`
		: `<response_str ident="R" rcardinality="Single">${fib(type)}</response_str>`;
	return {
		presentation: `${stemOf(question.stem, address)}${response}`,
		points: tests.map(({ test, credit }) => condition(test, setvar(credit * scale, 'Set'), false)),
		right: anyOf(tests.filter((one) => one.credit >= 1).map((one) => one.test))
	};
}
