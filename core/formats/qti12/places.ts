import type { Shape } from '../../model/pieces';
import { childOf, childrenOf, descendants, element, trimmed, type XmlElement } from '../../xml/tree';
import { placeName } from '../shapes';
import { areaOf } from './areas';
import { withParted, type Parting } from './parting';
import { cardinalityOf, partOf, responseNames } from './reading';

const labelsOf = (response: XmlElement) => descendants(response, 'response_label');
const identOf = (node: XmlElement) => node.attributes.ident ?? '';
const material = (text: string) => element('material', {}, [element('mattext', {}, [text])]);
const isPicture = (response: XmlElement) =>
	response.name === 'response_xy' || childOf(response, 'render_hotspot') !== undefined;

/** What stands in a response beside its options, such as a question of its own or the picture that is pointed at. */
const besideOptions = (response: XmlElement): XmlElement[] => {
	const found: XmlElement[] = [];
	const walk = (node: XmlElement) => {
		for (const child of childrenOf(node))
			if (child.name === 'material') found.push(child);
			else if (child.name !== 'response_label') walk(child);
	};
	walk(response);
	return found;
};

/** A list of its own to choose from. */
const listOf = (attributes: Record<string, string>, labels: XmlElement[], shuffle?: string): XmlElement =>
	element('response_lid', attributes, [element('render_choice', shuffle === undefined ? {} : { shuffle }, labels)]);

/** A list that is filled for one of several places, of which the file may mark all or nothing. */
const listOfPlace = (ident: string, whole: string, labels: XmlElement[], shuffle?: string): XmlElement =>
	listOf({ ident, rcardinality: 'Single', [partOf]: whole }, labels, shuffle);

/** Things to put in order: each place is chosen from all of them. */
function orderParting(response: XmlElement): Parting {
	const ident = identOf(response);
	const labels = labelsOf(response);
	const { shuffle } = childOf(response, 'render_choice')?.attributes ?? {};
	const nameOf = (place: number) => `${ident}.${place}`;
	return {
		pieces: [
			...besideOptions(response),
			...labels.map((_, at) =>
				element('flow', {}, [material(`${at + 1}. `), listOfPlace(nameOf(at + 1), ident, labels, shuffle)])
			)
		],
		condition: (node, place) => {
			const { index, ...attributes } = node.attributes;
			return { ...node, attributes: { ...attributes, respident: nameOf(Number(index ?? place)) } };
		}
	};
}

const outside = 'ELSEWHERE';

/** Places of a picture: they are chosen from a list by their names. */
function pictureParting(response: XmlElement, conditions: XmlElement[]): Parting {
	const ident = identOf(response);
	const seen = new Map<string, Shape>();
	const areaIn = (node: XmlElement, type: string | undefined, name: string) => {
		const shape = areaOf(type, trimmed(node), name);
		const known = seen.get(shape.coordinates.join());
		if (!known) seen.set(shape.coordinates.join(), shape);
		return known ?? shape;
	};
	for (const label of labelsOf(response))
		if (trimmed(label) || label.attributes.rarea) areaIn(label, label.attributes.rarea, identOf(label));
	const own = (node: XmlElement) => (node.attributes.respident ?? ident) === ident;
	const inside = conditions.filter((node) => node.name === 'varinside' && own(node));
	const areas = new Map(inside.map((node, at) => [node, areaIn(node, node.attributes.areatype, `A${at + 1}`)]));
	const labels = [...seen.values()].map((shape, at) =>
		element('response_label', { ident: shape.identifier }, [material(placeName(shape, at))])
	);
	if (inside.length) labels.push(element('response_label', { ident: outside }, [material('Another place')]));
	const rcardinality = cardinalityOf(response) === 'multiple' ? 'Multiple' : 'Single';
	return {
		pieces: labels.length
			? [...besideOptions(response), element('flow', {}, [listOf({ ident, rcardinality }, labels)])]
			: [response],
		condition: (node) => {
			const area = areas.get(node);
			return area ? element('varequal', { respident: ident }, [area.identifier]) : node;
		}
	};
}

/** Things of a group to be paired: for each that may be put to others, these are chosen from a list. */
function groupParting(response: XmlElement): Parting {
	const ident = identOf(response);
	const labels = labelsOf(response);
	const left = labels.filter((label) => label.attributes.match_group);
	const right = labels.filter((label) => !label.attributes.match_group);
	const nameOf = (label: string) => `${ident}.${label}`;
	const names = new Set(left.map(identOf));
	return {
		pieces: [
			...besideOptions(response),
			...left.map((label) =>
				element('flow', {}, [...descendants(label, 'material'), listOfPlace(nameOf(identOf(label)), ident, right)])
			)
		],
		condition: (node) => {
			const two = trimmed(node)
				.split(/[\s,]+/)
				.filter(Boolean);
			const at = two.findIndex((one) => names.has(one));
			const other = two[1 - at];
			if (at < 0 || two.length !== 2 || other === undefined) return node;
			return element('varequal', { respident: nameOf(two[at]!) }, [other]);
		}
	};
}

function partingOf(response: XmlElement, conditions: XmlElement[]): Parting | null {
	if (isPicture(response)) return pictureParting(response, conditions);
	if (!childOf(response, 'render_choice')) return null;
	if (response.name === 'response_grp') return groupParting(response);
	return cardinalityOf(response) === 'ordered' ? orderParting(response) : null;
}

/**
 * Takes the responses of an item apart that ask for an order, for pairs or for a place in a picture, where they stand
 * beside others: each becomes lists to choose from, so that all of them can be the blanks of one question. Says how.
 * An item with a single response stays as it is.
 */
export function partPlaces(item: XmlElement): { item: XmlElement; parted: 'no' | 'lists' | 'pictures' } {
	const presentation = childOf(item, 'presentation');
	const responses = presentation ? descendants(presentation, ...responseNames) : [];
	if (responses.length < 2) return { item, parted: 'no' };
	const processing = childOf(item, 'resprocessing');
	const conditions = processing ? descendants(processing, 'varinside') : [];
	const partings = new Map<string, Parting>();
	for (const response of responses) {
		const parting = partingOf(response, conditions);
		if (parting) partings.set(identOf(response), parting);
	}
	if (!partings.size) return { item, parted: 'no' };
	return { item: withParted(item, partings), parted: responses.some(isPicture) ? 'pictures' : 'lists' };
}
