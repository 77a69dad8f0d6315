import type { OrderingQuestion } from '../../../../kinds';
import { allOf, condition, equals, setvar } from '../conditions';
import { material } from '../html';
import { label, names, stemOf, yesNo, type Address, type Parts } from './parts';

/** How a question of an order is asked and marked. */
export function orderParts(question: OrderingQuestion, scale: number, address: Address): Parts {
	const presented = question.presented.flatMap((one) => question.items.find((item) => item.identifier === one) ?? []);
	const idents = names(presented, 'I');
	const ident = new Map(presented.map((item, at) => [item.identifier, idents[at]!]));
	const labels = presented.map((item, at) => label(idents[at]!, material(item.text, address))).join('');
	const order = question.items.map((item) => ident.get(item.identifier)!);
	const whole = allOf(order.map((one, at) => equals('R', one, at + 1)));
	return {
		presentation: `${stemOf(question.stem, address)}<response_lid ident="R" rcardinality="Ordered"><render_choice${yesNo(question.shuffle)}>${labels}</render_choice></response_lid>`,
		points:
			question.rule === 'all'
				? [condition(whole, setvar(scale, 'Set'), false)]
				: order.map((one, at) => condition(equals('R', one, at + 1), setvar(scale / order.length, 'Add'), true)),
		right: whole
	};
}
