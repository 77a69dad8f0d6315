import {
	columnOrderingFeature,
	columnVisibilityFeature,
	constructTable,
	tableFeatures,
	type ColumnDef
} from '@tanstack/table-core';
import { storeReactivityBindings } from '@tanstack/table-core/store-reactivity-bindings';
import { kindName } from '$core/kinds';
import type { Sorting } from '$lib/server/banks/filter';
import type { QuestionRow } from '$lib/server/banks/question-rows';
import { figure } from '$lib/ui/words';

/** What a column of the table of questions is: its head, how wide it is, what it says, and what it is sorted by. */
export interface Column {
	id: string;
	name: string;
	width: string;
	/** It gives way first where the window is narrow. */
	roomy: boolean;
	number?: boolean;
	sort: Sorting;
	/** What stands in the cell of a question, as text; the place of it in the list is known too. */
	says: (question: QuestionRow, place: number, categoryOf: (id: number | null) => string) => string;
}

const day = (when: Date | string | null) => (when ? new Date(when).toISOString().slice(0, 10) : '');

/** What is known of a key, in a word. */
export const keyWords: Record<QuestionRow['key'], string> = {
	verified: 'verified',
	unverified: '',
	disputed: 'doubted',
	machine: 'by a machine'
};

/** All columns in the order in which they come. A new one is an entry here. */
export const columns: readonly Column[] = [
	{
		id: 'place',
		sort: 'tree',
		name: 'No.',
		width: '44px',
		roomy: false,
		number: true,
		says: (_, place) => figure(place + 1)
	},
	{ id: 'title', name: 'Title', width: 'minmax(120px, 2fr)', roomy: false, sort: 'title', says: ({ title }) => title },
	{ id: 'stem', sort: 'stem', name: 'Stem', width: 'minmax(120px, 3fr)', roomy: true, says: ({ stem }) => stem },
	{ id: 'kind', name: 'Kind', width: '112px', roomy: true, sort: 'kind', says: ({ kind }) => kindName(kind) },
	{
		id: 'category',
		name: 'Category',
		width: 'minmax(90px, 1fr)',
		roomy: true,
		sort: 'tree',
		says: ({ categoryId }, _, categoryOf) => categoryOf(categoryId)
	},
	{
		id: 'points',
		name: 'Pts',
		width: '36px',
		roomy: false,
		number: true,
		sort: 'points',
		says: ({ points }) => (points === null ? '–' : String(points))
	},
	{
		id: 'tags',
		sort: 'tags',
		name: 'Tags',
		width: 'minmax(70px, 1fr)',
		roomy: true,
		says: ({ tags }) => tags.join(', ')
	},
	{
		id: 'difficulty',
		name: 'Difficulty',
		width: '76px',
		roomy: true,
		sort: 'difficulty',
		says: ({ difficulty }) => difficulty
	},
	{ id: 'language', sort: 'language', name: 'Language', width: '70px', roomy: true, says: ({ language }) => language },
	{
		id: 'key',
		sort: 'key',
		name: 'Key',
		width: '84px',
		roomy: false,
		says: ({ key, stale }) => (stale ? 'changed since' : keyWords[key])
	},
	{
		id: 'used',
		sort: 'used',
		name: 'Used',
		width: '48px',
		roomy: true,
		number: true,
		says: ({ used }) => (used ? String(used) : '')
	},
	{ id: 'created', name: 'Created', width: '84px', roomy: true, sort: 'created', says: ({ created }) => day(created) },
	{ id: 'changed', name: 'Changed', width: '84px', roomy: true, sort: 'changed', says: ({ changed }) => day(changed) },
	{ id: 'by', sort: 'by', name: 'By', width: '96px', roomy: true, says: ({ changedBy }) => changedBy ?? '' },
	{ id: 'load', sort: 'load', name: 'Load', width: 'minmax(80px, 1fr)', roomy: true, says: ({ load }) => load ?? '' },
	{ id: 'snags', name: 'Snags', width: '84px', roomy: false, sort: 'snags', says: () => '' }
];

/** The columns that are shown where nobody has chosen any. */
export const plainColumns = ['title', 'kind', 'points', 'key', 'snags'];

/** The name of the cookie that remembers them. */
export const columnsCookie = 'bank-columns';

const features = tableFeatures({
	coreReactivityFeature: storeReactivityBindings(),
	columnOrderingFeature,
	columnVisibilityFeature
});
const definitions: ColumnDef<typeof features, QuestionRow>[] = columns.map(({ id, name }) => ({ id, header: name }));
const byId = new Map(columns.map((column) => [column.id, column]));

/** The columns that are shown, in their order, out of the names that somebody has chosen; the title is always there. */
export function shownColumns(chosen: readonly string[]): Column[] {
	const known = chosen.filter((id) => byId.has(id));
	const order = known.includes('title') ? known : ['title', ...known];
	const table = constructTable({
		features,
		columns: definitions,
		data: [],
		state: {
			columnOrder: order,
			columnVisibility: Object.fromEntries(columns.map(({ id }) => [id, order.includes(id)]))
		}
	});
	return table.getVisibleLeafColumns().map(({ id }) => byId.get(id)!);
}

/** The names of columns out of the cookie that remembers them. */
export function columnsIn(cookie: string | undefined): string[] {
	const names = (cookie ?? '').split('.').filter((id) => byId.has(id));
	return names.length ? [...new Set(names)] : plainColumns;
}
