import { array, number, object, string } from 'yup';
import type { Match } from '$core/take-in/planned-question';
import { listOrders, type Chosen, type ListFilter } from './listed';

const matches: readonly (Match | '')[] = ['', 'new', 'same', 'changed', 'near'];

/** The schema of a filter of the questions of a load. */
export const filterShape = object({
	words: string().max(500).ensure(),
	rule: string().max(60).ensure(),
	kind: string().max(24).ensure(),
	match: string().oneOf(matches).ensure(),
	category: string().max(2000).nullable().default(null)
});

const ids = array(number().integer().positive().required()).max(200_000);

/** The fields by which an endpoint is told which questions of a load something is done with: `ids`, or `filter` and `except`. */
export const chosenFields = {
	ids: ids.notRequired(),
	filter: filterShape.default(undefined).notRequired(),
	except: ids.notRequired()
};

/** What those fields give. */
export interface ChosenBody {
	ids?: number[] | null;
	filter?: ListFilter | null;
	except?: number[] | null;
}

/** The questions that a body chooses; null where it chooses none. */
export function chosenIn(body: ChosenBody): Chosen | null {
	if (body.ids) return { ids: body.ids };
	return body.filter ? { filter: body.filter, except: body.except ?? [] } : null;
}

/** The filter and the order that an address asks for. Throws Yup's ValidationError. */
export function listIn(url: URL): { filter: ListFilter; order: (typeof listOrders)[number] } {
	const asked = url.searchParams;
	const filter = filterShape.validateSync({
		words: asked.get('words'),
		rule: asked.get('rule'),
		kind: asked.get('kind'),
		match: asked.get('match'),
		category: asked.get('category')
	});
	return { filter, order: listOrders.find((order) => order === asked.get('order')) ?? 'file' };
}
