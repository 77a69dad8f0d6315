import type { HotspotQuestion } from '../../../../kinds';
import { escapeAttribute, escapeText } from '../../../../xml/serialise';
import { mediaType } from '../../../media';
import { areaText } from '../../areas';
import { allOf, anyOf, condition, equals, insideTest, not, setvar } from '../conditions';
import { label, names, stemOf, type Address, type Parts } from './parts';

/** How a question of places in a picture is asked and marked. */
export function pointParts(question: HotspotQuestion, scale: number, address: Address): Parts {
	const idents = names(question.shapes, 'A');
	const several = question.picks !== 1;
	const { picture } = question;
	const size = (side: string, value: number | null) => (value === null ? '' : ` ${side}="${Math.round(value)}"`);
	const type = mediaType(picture.name).startsWith('image/') ? mediaType(picture.name) : 'image/png';
	const image = `<material><matimage imagtype="${type}" uri="${escapeAttribute(address(picture.name))}"${size('width', picture.width)}${size('height', picture.height)}>${escapeText(picture.alt)}</matimage></material>`;
	const labels = question.shapes
		.map((shape, at) => {
			const area = areaText(shape);
			return area ? label(idents[at]!, area.text, ` rarea="${area.type}"`) : '';
		})
		.join('');
	const element = question.mode === 'areas' ? 'response_lid' : 'response_xy';
	const most = several && question.picks ? ` maxnumber="${question.picks}"` : '';
	const tests = question.shapes.map((shape, at) =>
		question.mode === 'areas' ? equals('R', idents[at]!) : insideTest('R', shape)
	);
	const right = question.shapes.flatMap((shape, at) => (shape.credit > 0 ? [at] : []));
	const whole = right.length
		? several
			? allOf(tests.map((test, at) => (right.includes(at) ? test : not(test))))
			: anyOf(tests.filter((_, at) => question.shapes[at]!.credit >= 1))
		: '';
	return {
		presentation: `${stemOf(question.stem, address)}<${element} ident="R" rcardinality="${several ? 'Multiple' : 'Single'}"><render_hotspot${most}>${image}${labels}</render_hotspot></${element}>`,
		points:
			several && question.combination === 'all'
				? whole
					? [condition(whole, setvar(scale, 'Set'), false)]
					: []
				: question.shapes.flatMap((shape, at) =>
						shape.credit || question.mode === 'points'
							? [condition(tests[at]!, setvar(shape.credit * scale, several ? 'Add' : 'Set'), several)]
							: []
					),
		right: whole
	};
}
