import { withCommon } from '../../model/question';
import type { HotspotQuestion } from '../../kinds';
import type { Picture, Shape } from '../../model/pieces';
import { middleOf } from '../../kinds/areas';
import { childOf, childrenOf, descendants, trimmed, type XmlElement } from '../../xml/tree';
import { parseNumber } from '../../numbers/numbers';
import { shapeOf } from '../shapes';
import { markSets } from './marking';
import type { ResponseDeclaration } from './process';
import { lostOf, noteLost, promptNodes, simplified, stemOf, type Reading } from './reading';

/** The picture of a graphic interaction, attached to the question. */
export function pictureOf({ attach }: Reading, interaction: XmlElement): Picture {
	const node =
		childOf(interaction, 'object') ?? childOf(interaction, 'img') ?? descendants(interaction, 'object', 'img')[0];
	const address = node?.attributes.data ?? node?.attributes.src ?? '';
	return {
		name: (address && attach(address)) || address,
		width: parseNumber(node?.attributes.width ?? ''),
		height: parseNumber(node?.attributes.height ?? ''),
		alt: node ? node.attributes.alt || trimmed(node) : ''
	};
}

const guessedRadius = 10;

/** The areas that a mapping or, without one, the rules name for points that are to be given. */
export function namedShapes({ areas }: ResponseDeclaration, rules: XmlElement | undefined): Shape[] {
	const mapped: Shape[] = (areas?.shapes ?? []).map(({ value: _, ...shape }) => shape);
	if (mapped.length || !rules) return mapped;
	return descendants(rules, 'inside').map((node, at) => shapeOf(node, `A${at + 1}`));
}

/** A circle around each point that is declared as right. */
export function aroundPoints({ correct }: ResponseDeclaration): Shape[] {
	return correct.map((point, at) => ({
		identifier: `A${at + 1}`,
		shape: 'circle',
		coordinates: [...point.split(' ').map(Number), guessedRadius]
	}));
}

/** Reads a place to be chosen or pointed at in a picture (2.1, 7.4.1 and 7.4.5). */
export function readPoints(
	reading: Reading,
	interaction: XmlElement,
	declaration: ResponseDeclaration
): HotspotQuestion {
	const { common, cleaning, rules } = reading;
	common.stem = stemOf(reading, (node) => promptNodes(node, cleaning));
	const areas = interaction.name === 'hotspotInteraction';
	const several = declaration.cardinality === 'multiple' && interaction.attributes.maxChoices !== '1';
	const picture = pictureOf(reading, interaction);
	const picks = parseNumber(interaction.attributes.maxChoices ?? '') ?? 1;
	if (areas) {
		const shapes = childrenOf(interaction, 'hotspotChoice').map((node) =>
			shapeOf(node, node.attributes.identifier ?? '')
		);
		const found = markSets(
			reading,
			declaration,
			shapes.map((shape) => shape.identifier),
			several
		);
		noteLost(
			reading,
			lostOf(
				declaration,
				shapes.map((shape) => shape.identifier)
			)
		);
		return withCommon(common, {
			kind: 'hotspot',
			picture,
			shapes: shapes.map((shape, at) => ({ ...shape, credit: found.credits[at]! })),
			mode: 'areas',
			picks: several ? picks : 1,
			outside: 0,
			combination: found.combination,
			bounds: found.bounds
		});
	}
	const shapes = namedShapes(declaration, rules);
	if (!shapes.length && declaration.correct.length) {
		shapes.push(...aroundPoints(declaration));
		simplified(
			reading,
			`The file names single points only. A circle of ${guessedRadius} pixels around each is accepted here; look at it.`
		);
		const [share] = [1 / shapes.length];
		return withCommon(common, {
			kind: 'hotspot',
			picture,
			shapes: shapes.map((shape) => ({ ...shape, credit: share })),
			mode: 'points',
			picks,
			outside: 0,
			combination: several ? 'all' : 'sum',
			bounds: { lower: null, upper: null }
		});
	}
	const points = shapes.map((shape) => middleOf(shape).join(' '));
	const found = markSets(reading, declaration, points, several, () => true, true);
	const full = declaration.areas && common.points ? common.points : 1;
	return withCommon(common, {
		kind: 'hotspot',
		picture,
		shapes: shapes.map((shape, at) => ({ ...shape, credit: found.credits[at]! })),
		mode: 'points',
		picks: several ? picks : 1,
		outside: declaration.areas
			? Math.max(-1, Math.min(1, Math.round((declaration.areas.fallback / full) * 1e6) / 1e6))
			: 0,
		combination: found.combination,
		bounds: found.bounds
	});
}
