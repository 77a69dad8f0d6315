import { sheetForm, unknownNames, type PartForm, type QuotaForm, type SheetForm } from './shape';
import { WrongSheet } from './wrong';

/** A question of a sheet, with what is missing filled in. */
export interface PlannedQuestion {
	id: string;
	category: string[];
	kind: string;
	points: number;
	difficulty: number | null;
	tags: string[];
	seconds: number | null;
	/** An information text: it counts in nothing. */
	isText: boolean;
}

/** What is given as a whole or not at all: a question, or a group with its texts, by places in the list of questions. */
export interface Unit {
	members: number[];
	/** Those of them that count. */
	counted: number[];
	/** The units that do not come together with it. */
	never: number[];
}

/** Of the drawn questions of a part, so many have a value. */
export interface Quota {
	least: number;
	most: number;
	/** Whether a question has the value. */
	has: (question: PlannedQuestion) => boolean;
	/** What the value is called. */
	name: string;
}

/** A part with what it can give. */
export interface PlannedPart {
	title: string;
	/** How many questions it gives. */
	draw: number;
	/** What each is worth; null for its own points. */
	points: number | null;
	order: 'shuffled' | 'kept' | 'easy first';
	/** The units that it may give, by their places. */
	units: number[];
	/** It gives all of them. */
	isAll: boolean;
	/** The order of its questions where it is kept, by places in the list of questions; empty for that of a pool. */
	list: number[];
	quotas: Quota[];
	/** Why it can never be filled, for people, where that shows in the part itself. */
	impossible: string | null;
}

/** A sheet that was understood: what may be given as a whole, and what each part wants of it. */
export interface Plan {
	questions: PlannedQuestion[];
	units: Unit[];
	parts: PlannedPart[];
	partsShuffled: boolean;
	/** What may be a slip, for people. */
	warnings: string[];
}

const unreadable = 'unreadable';
const text = 'information';

/** What a sheet is called in words: its parts by their titles, or by their numbers. */
export const partName = (title: string, at: number): string => title || `Part ${at + 1}`;

const isUnder = (path: readonly string[], top: readonly string[]) =>
	path.length >= top.length && top.every((step, at) => step === path[at]);

/** Finds questions by their names, or says which is not there. */
class Names {
	readonly #places = new Map<string, number>();

	constructor(questions: SheetForm['questions']) {
		questions.forEach(({ id }, at) => {
			if (this.#places.has(id))
				throw new WrongSheet(
					`questions[${at}].id`,
					`“${id}” is the name of questions[${this.#places.get(id)!}] too. Give each its own.`
				);
			this.#places.set(id, at);
		});
	}

	find(id: string, place: string): number {
		const found = this.#places.get(id);
		if (found === undefined)
			throw new WrongSheet(
				place,
				`there is no question “${id}” among the questions. Add it there, or take it out here.`
			);
		return found;
	}
}

/** The groups of a sheet, by places; each question is in one at the most. */
function groupsOf({ together = [] }: SheetForm, names: Names): number[][] {
	const inGroup = new Map<number, number>();
	return together.map((ids, group) =>
		ids.map((id, at) => {
			const place = `together[${group}][${at}]`;
			const question = names.find(id, place);
			const other = inGroup.get(question);
			if (other !== undefined)
				throw new WrongSheet(
					place,
					other === group
						? `“${id}” is named twice in the group.`
						: `“${id}” is in together[${other}] too. Put all of both into one group, or take it out of one.`
				);
			inGroup.set(question, group);
			return question;
		})
	);
}

/** The units of questions by the groups that they stand in, and the unit of each question. */
export function unitsOf(questions: PlannedQuestion[], groups: number[][]): { units: Unit[]; unitOf: number[] } {
	const unitOf: number[] = [];
	const units: Unit[] = [];
	const groupOf = new Map(groups.flatMap((group) => group.map((question) => [question, group] as const)));
	questions.forEach((_, at) => {
		if (unitOf[at] !== undefined) return;
		const members = groupOf.get(at) ?? [at];
		for (const member of members) unitOf[member] = units.length;
		units.push({ members, counted: members.filter((member) => !questions[member]!.isText), never: [] });
	});
	return { units, unitOf };
}

function forbidPairs({ never = [] }: SheetForm, names: Names, units: Unit[], unitOf: number[]): void {
	never.forEach((pair, at) => {
		const [one, other] = pair.map((id, which) => unitOf[names.find(id, `never[${at}][${which}]`)]!);
		if (pair[0] === pair[1])
			throw new WrongSheet(`never[${at}]`, `“${pair[0]}” cannot be kept from itself. Name two questions.`);
		units[one!]!.never.push(other!);
		if (one !== other) units[other!]!.never.push(one!);
	});
}

/** The questions of a pool, by places: those that fit its conditions, with what is included, without what is excluded. */
function poolOf(
	pool: NonNullable<PartForm['pool']>,
	place: string,
	{ questions, names, warnings }: { questions: PlannedQuestion[]; names: Names; warnings: string[] }
): Set<number> {
	const { categories, tags, kinds, difficulty, include = [], exclude = [] } = pool;
	if (difficulty && difficulty[0]! > difficulty[1]!)
		throw new WrongSheet(`${place}.difficulty`, `${difficulty[0]} is over ${difficulty[1]}. Put the least first.`);
	categories?.forEach(({ path }, at) => {
		if (!questions.some(({ category }) => isUnder(category, path)))
			warnings.push(`${place}.categories[${at}]: no question stands in “${path.join(' › ')}”.`);
	});
	const fits = ({ category, kind, tags: own, difficulty: hard }: PlannedQuestion) =>
		(!categories?.length ||
			categories.some(({ path, under = true }) =>
				under ? isUnder(category, path) : isUnder(category, path) && category.length === path.length
			)) &&
		(!tags?.any?.length || tags.any.some((tag) => own.includes(tag))) &&
		(tags?.all ?? []).every((tag) => own.includes(tag)) &&
		!(tags?.none ?? []).some((tag) => own.includes(tag)) &&
		(!kinds?.length || kinds.includes(kind)) &&
		(!difficulty || (hard !== null && hard >= difficulty[0]! && hard <= difficulty[1]!));
	const found = new Set(questions.flatMap((question, at) => (fits(question) ? [at] : [])));
	include.forEach((id, at) => found.add(names.find(id, `${place}.include[${at}]`)));
	exclude.forEach((id, at) => found.delete(names.find(id, `${place}.exclude[${at}]`)));
	for (const at of found) if (questions[at]!.isText || questions[at]!.kind === unreadable) found.delete(at);
	return found;
}

/** The units of a pool: of a group, all that counts has to be in it. */
export function unitsIn(pool: ReadonlySet<number>, units: readonly Unit[], unitOf: readonly number[]): number[] {
	const found = new Set([...pool].map((question) => unitOf[question]!));
	return [...found]
		.filter((unit) => {
			const { counted, never } = units[unit]!;
			return counted.every((question) => pool.has(question)) && !never.includes(unit);
		})
		.sort((a, b) => a - b);
}

/** A quota of a sheet; one that is made here may also count by the points of the questions themselves, as a range. */
export type SheetQuota = Omit<QuotaForm, 'by'> & { by: QuotaForm['by'] | 'points' };

/** What a quota's value means, and what it is called. */
function measured(by: SheetQuota['by'], value: unknown, place: string): Pick<Quota, 'has' | 'name'> {
	const isTexts = Array.isArray(value) && value.length > 0 && value.every((step) => typeof step === 'string');
	if (by === 'category') {
		if (!isTexts) throw new WrongSheet(place, 'a category is named by its steps, as ["Tides", "Levels"].');
		return {
			has: ({ category }) => isUnder(category, value),
			name: `“${value.join(' › ')}”`
		};
	}
	if (by === 'difficulty' || by === 'points') {
		const [least, most] = Array.isArray(value) ? (value as unknown[]) : [];
		if (typeof least !== 'number' || typeof most !== 'number' || least > most)
			throw new WrongSheet(place, `${by} is a range, the least first, as [0.2, 0.8].`);
		if (by === 'points')
			return {
				has: ({ points }) => points >= least && points <= most,
				name: least === most ? `${least} ${least === 1 ? 'point' : 'points'} each` : `${least} to ${most} points each`
			};
		return {
			has: ({ difficulty }) => difficulty !== null && difficulty >= least && difficulty <= most,
			name: `difficulty ${least} to ${most}`
		};
	}
	if (typeof value !== 'string') throw new WrongSheet(place, `a ${by} is named by a text.`);
	return by === 'kind'
		? { has: ({ kind }) => kind === value, name: `the kind “${value}”` }
		: { has: ({ tags }) => tags.includes(value), name: `the tag “${value}”` };
}

/** The quotas that one entry of a part stands for, given how many it draws and the questions of its units. */
export function quotasOf(
	form: SheetQuota,
	place: string,
	draw: number,
	given: readonly PlannedQuestion[],
	warnings: string[]
): Quota[] {
	const { by, values, value, spread, least, most } = form;
	if ((values === undefined) === (value === undefined))
		throw new WrongSheet(place, 'say either “value”, or “values” with how they are spread.');
	if (values === undefined && spread !== undefined)
		throw new WrongSheet(`${place}.spread`, 'goes with “values”, a list of several.');
	if (values !== undefined && spread === undefined && least === undefined && most === undefined)
		throw new WrongSheet(
			place,
			'say how the values are spread: “equal” or “proportional”, or “least” and “most” of each.'
		);
	if (spread !== undefined && (least !== undefined || most !== undefined))
		throw new WrongSheet(place, '“least” and “most” follow from “spread”. Take one of them out.');
	if (least !== undefined && most !== undefined && least > most)
		throw new WrongSheet(place, `“least” ${least} is over “most” ${most}. Put the smaller one first.`);
	const all = values ?? [value];
	return all.map((each, at) => {
		const what = measured(by, each, values ? `${place}.values[${at}]` : `${place}.value`);
		const there = given.filter(what.has).length;
		if (!there) warnings.push(`${place}: no question of the part has ${what.name}.`);
		if (spread === undefined) return { ...what, least: least ?? 0, most: most ?? Math.max(draw, least ?? 0) };
		const share = spread === 'equal' ? draw / all.length : given.length ? (draw * there) / given.length : 0;
		// 3 × 0.1 is a little over 0.3 here; a share that is whole is not torn apart for that
		return { ...what, least: Math.floor(share + 1e-9), most: Math.ceil(share - 1e-9) };
	});
}

interface Ground {
	questions: PlannedQuestion[];
	names: Names;
	units: Unit[];
	unitOf: number[];
	warnings: string[];
}

/** What a part that lists its questions gives: all of them. */
function listed(
	ids: string[],
	place: string,
	isKept: boolean,
	ground: Ground
): Pick<PlannedPart, 'units' | 'list' | 'impossible'> {
	const { questions, names, units, unitOf } = ground;
	const list = ids.map((id, at) => names.find(id, `${place}[${at}]`));
	list.forEach((question, at) => {
		if (list.indexOf(question) < at)
			throw new WrongSheet(`${place}[${at}]`, `“${ids[at]}” is named twice. No question comes twice: take one out.`);
		if (questions[question]!.kind === unreadable)
			throw new WrongSheet(`${place}[${at}]`, `“${ids[at]}” cannot be read, so it cannot be given. Take it out.`);
	});
	const given = new Set(list);
	const held = [...new Set(list.map((question) => unitOf[question]!))];
	const torn = held.find((unit) => units[unit]!.counted.some((question) => !given.has(question)));
	for (const unit of held) {
		const members = units[unit]!.members.filter((question) => given.has(question));
		const from = list.indexOf(members[0]!);
		if (isKept && torn === undefined && members.some((question, at) => list[from + at] !== question))
			throw new WrongSheet(
				place,
				`the group of “${questions[members[0]!]!.id}” stands apart or in another order. Put its questions side by side in the order of the group.`
			);
	}
	const missing = torn === undefined ? null : units[torn]!.counted.find((question) => !given.has(question));
	return {
		units: held,
		list,
		impossible:
			missing == null
				? null
				: `It lists only some of a group: “${questions[missing]!.id}” is missing. List all of the group, or none.`
	};
}

function plannedPart(form: PartForm, at: number, ground: Ground): PlannedPart {
	const place = `parts[${at}]`;
	const { questions: ids, pool, draw, title = '', points = null, quotas = [] } = form;
	if (ids && pool)
		throw new WrongSheet(place, 'has both “questions” and a “pool”. A part lists questions or draws from a pool.');
	if (!ids && !pool)
		throw new WrongSheet(place, 'has neither “questions” nor a “pool”. An empty pool, {}, stands for all questions.');
	if (pool && draw === undefined)
		throw new WrongSheet(`${place}.draw`, 'is missing: say how many are drawn from the pool, or null for all.');
	if (ids && draw != null)
		throw new WrongSheet(
			`${place}.draw`,
			'goes with a pool: a list gives all that it names. Take it out, or make a pool of the list.'
		);
	const order = form.order ?? (ids ? 'kept' : 'shuffled');
	const from = ids
		? listed(ids, `${place}.questions`, order === 'kept', ground)
		: {
				units: unitsIn(poolOf(pool, `${place}.pool`, ground), ground.units, ground.unitOf),
				list: [],
				impossible: null
			};
	const given = from.units.flatMap((unit) =>
		ground.units[unit]!.counted.map((question) => ground.questions[question]!)
	);
	const all = draw ?? given.length;
	return {
		title,
		draw: all,
		points,
		order,
		isAll: draw == null,
		...from,
		quotas: quotas.flatMap((quota, which) => quotasOf(quota, `${place}.quotas[${which}]`, all, given, ground.warnings))
	};
}

/** What a sheet in the published form means (draws.md). Throws WrongSheet with the place and what to do. */
export function planOf(value: unknown): Plan {
	const form = sheetForm(value);
	const names = new Names(form.questions);
	const questions = form.questions.map(
		({ id, category = [], kind = '', points, difficulty, tags = [], seconds }): PlannedQuestion => ({
			id,
			category,
			kind,
			points: points ?? 0,
			difficulty: difficulty ?? null,
			tags,
			seconds: seconds ?? null,
			isText: kind === text
		})
	);
	const { units, unitOf } = unitsOf(questions, groupsOf(form, names));
	forbidPairs(form, names, units, unitOf);
	const warnings = unknownNames(form).map((name) => `${name}: there is no such thing in a sheet; it is left aside.`);
	const ground: Ground = { questions, names, units, unitOf, warnings };
	const parts = form.parts.map((part, at) => plannedPart(part, at, ground));
	return { questions, units, parts, partsShuffled: form['parts-order'] === 'shuffled', warnings };
}
