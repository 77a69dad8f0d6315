import type { HotspotQuestion } from '../../../kinds';
import { middleOf } from '../../../kinds/areas';
import { coordinatesText } from '../../shapes';
import { pictureXml } from './pairs';
import {
	boundsText,
	byCredit,
	correct,
	declare,
	float,
	identifiersFor,
	number,
	setScore,
	type Parts,
	type Writing
} from './parts';

/** The parts of a place to be chosen or pointed at. */
export function pointParts(question: HotspotQuestion, writing: Writing): Parts {
	const { scale } = writing;
	const several = question.picks !== 1;
	const right = question.shapes.filter((shape) => shape.credit > 0);
	const all = several && question.combination === 'all' && right.length > 0;
	const cardinality = several ? 'multiple' : 'single';
	const keyed = several ? right : byCredit(right).slice(0, 1);
	const picture = pictureXml(question.picture, writing);
	if (question.mode === 'areas') {
		const names = identifiersFor(question.shapes, 'A');
		const nameOf = (shape: (typeof right)[number]) => names[question.shapes.indexOf(shape)]!;
		const choices = question.shapes
			.map(
				(shape, at) =>
					`<hotspotChoice identifier="${names[at]}" shape="${shape.shape}" coords="${coordinatesText(shape)}"/>`
			)
			.join('');
		const interaction = `<hotspotInteraction responseIdentifier="RESPONSE" maxChoices="${several ? question.picks : 1}">${picture}${choices}</hotspotInteraction>`;
		if (all) {
			const declaration = declare(cardinality, 'identifier', correct(keyed.map(nameOf)));
			if (scale === 1) return { declaration, interaction, template: 'match_correct' };
			const rules = `<responseCondition><responseIf><match><variable identifier="RESPONSE"/><correct identifier="RESPONSE"/></match>${setScore(scale)}</responseIf></responseCondition>`;
			return { declaration, interaction, rules };
		}
		const entries = question.shapes
			.map((shape, at) => `<mapEntry mapKey="${names[at]}" mappedValue="${number(shape.credit * scale)}"/>`)
			.join('');
		const bounds = several ? boundsText(question.bounds, scale) : '';
		const mapping = entries ? `<mapping${bounds} defaultValue="0">${entries}</mapping>` : '';
		return {
			declaration: declare(cardinality, 'identifier', correct(keyed.map(nameOf)) + mapping),
			interaction,
			template: 'map_response'
		};
	}
	const interaction = `<selectPointInteraction responseIdentifier="RESPONSE" maxChoices="${several ? question.picks : 1}">${picture}</selectPointInteraction>`;
	const keys = correct(keyed.map((shape) => middleOf(shape).map(Math.round).join(' ')));
	const entry = (value: (shape: (typeof right)[number]) => number) =>
		question.shapes
			.map(
				(shape) =>
					`<areaMapEntry shape="${shape.shape}" coords="${coordinatesText(shape)}" mappedValue="${number(value(shape))}"/>`
			)
			.join('');
	if (all) {
		// a worth that is not the score, so that the mapping is not taken for what each area earns
		const each = scale * 7 + 1;
		const mapping = `<areaMapping defaultValue="${number(-each)}">${entry((shape) => (shape.credit > 0 ? each : -each))}</areaMapping>`;
		return {
			declaration: declare(cardinality, 'point', keys + mapping),
			interaction,
			rules: `<responseCondition><responseIf><gte><mapResponsePoint identifier="RESPONSE"/>${float(right.length * each)}</gte>${setScore(scale)}</responseIf></responseCondition>`
		};
	}
	const entries = entry((shape) => shape.credit * scale);
	const bounds = several ? boundsText(question.bounds, scale) : '';
	const mapping = entries
		? `<areaMapping${bounds} defaultValue="${number(question.outside * scale)}">${entries}</areaMapping>`
		: '';
	return { declaration: declare(cardinality, 'point', keys + mapping), interaction, template: 'map_response_point' };
}
