import { kindOf, type Kind, type Question } from '../kinds';
import { numbersInWords, textsInWords } from '../kinds/part';
import type { Response } from '../kinds/kind';
import type { Markup } from '../model/question';
import { choiceOnPaper } from './choice';
import { fillBlanksOnPaper } from './fill-blanks';
import { letterAt, placesIn } from './letters';
import { pairsInWords, pairsTyped } from './pairing';
import type { PaperBlock, PaperKind, Typed } from './paper-kind';

type OfKind<Of extends Kind> = Extract<Question, { kind: Of }>;

/** What a person marks: the credit is typed, as a share in percent. */
function byHand<Of>(blocks: PaperKind<Of>['blocks']): PaperKind<Of> {
	return { blocks, key: () => 'marked by a person', typing: null, read: () => ({ wrong: 'A person marks this.' }) };
}

const line = (before = '', after = ''): PaperBlock => ({ sort: 'lines', count: 1, before, after });
const written = (typed: string): Typed => ({ response: { text: typed.trim() } });
const idsOf = (things: readonly { identifier: string }[]) => things.map(({ identifier }) => identifier);

/** How each kind of question stands on paper. A kind that is forgotten does not compile. */
const register: { [Of in Kind]: PaperKind<OfKind<Of>> } = {
	'true-false': choiceOnPaper(false),
	'multiple-choice': choiceOnPaper(false),
	'multiple-response': choiceOnPaper(true),
	'short-answer': {
		blocks: () => [line('Answer:')],
		key: ({ accepted }) => textsInWords(accepted),
		typing: 'what is written',
		read: (_, __, typed) => written(typed)
	},
	numeric: {
		blocks: ({ unit }) => [line('Answer:', unit ?? '')],
		key: ({ accepted, unit }) => `${numbersInWords(accepted)}${unit ? ` ${unit}` : ''}`,
		typing: 'a number',
		read: (_, __, typed) => written(typed)
	},
	'fill-blanks': fillBlanksOnPaper,
	matching: {
		blocks: ({ left, right }) => [
			{ sort: 'pairs', left: left.map(({ text }) => text), right: right.map(({ text }) => text) }
		],
		key: ({ left, right, pairs }) => pairsInWords(pairs, idsOf(left), idsOf(right), (pair) => [pair.left, pair.right]),
		typing: 'pairs, as 1C 2A',
		read: ({ left, right }, _, typed) => pairsTyped(typed, left, right, (one, other) => [one, other])
	},
	ordering: {
		blocks: (question) => [{ sort: 'order', items: shownItems(question).map(({ text }) => text) }],
		key: (question) => {
			const shown = idsOf(shownItems(question));
			return question.items.map(({ identifier }) => letterAt(shown.indexOf(identifier))).join(', ');
		},
		typing: 'letters in the right order, as CAB',
		read: (question, _, typed) => {
			const shown = shownItems(question);
			const places = placesIn(typed, shown.length);
			if (!places || new Set(places).size < places.length)
				return { wrong: `“${typed}” is no order: write each letter once, the first first.` };
			return { response: { order: places.map((place) => shown[place]!.identifier) } };
		}
	},
	essay: byHand(() => [{ sort: 'lines', count: 12, before: '', after: '' }]),
	'file-upload': byHand(() => [{ sort: 'say', text: 'Hand it in as a file, or on a sheet with your name.' }]),
	hotspot: {
		blocks: ({ picture, mode, shapes, picks }) => [
			{
				sort: 'say',
				text:
					mode === 'areas'
						? `Write the ${picks === 1 ? 'number of the place' : 'numbers of the places'} here: ________`
						: `Mark ${picks === 1 ? 'the place' : 'the places'} on the picture with a cross.`
			},
			{ sort: 'picture', picture, places: mode === 'areas' ? shapes : [] }
		],
		key: ({ shapes, mode }) =>
			mode === 'areas'
				? shapes.flatMap(({ credit }, at) => (credit > 0 ? [String(at + 1)] : [])).join(', ')
				: 'see the key of the question',
		typing: 'numbers of places, or a share in percent where a cross was made',
		read: ({ shapes, mode }, _, typed) => {
			if (mode === 'points') return { wrong: 'A person marks a cross on a picture: type the share, as 100 %.' };
			const numbers = typed
				.split(/[\s,;]+/)
				.filter(Boolean)
				.map(Number);
			if (numbers.some((number) => !shapes[number - 1]))
				return { wrong: `“${typed}” names no places: write numbers from 1 to ${shapes.length}.` };
			return { response: { options: numbers.map((number) => shapes[number - 1]!.identifier) } };
		}
	},
	'label-image': {
		blocks: ({ picture, targets, labels }) => [
			{ sort: 'picture', picture, places: targets },
			{ sort: 'words', title: 'Labels', words: labels.map(({ text }) => text) },
			{ sort: 'say', text: targets.map((_, at) => `${at + 1}: ____`).join('   ') }
		],
		key: ({ targets, labels, pairs }) =>
			pairsInWords(pairs, idsOf(targets), idsOf(labels), (pair) => [pair.right, pair.left]),
		typing: 'places with their labels, as 1C 2A',
		read: ({ targets, labels }, _, typed) => pairsTyped(typed, targets, labels, (place, label) => [label, place])
	},
	calculated: {
		blocks: ({ unit }) => [line('Answer:', unit ?? '')],
		key: ({ expression }) => `= ${expression}`,
		typing: 'a number',
		read: (_, __, typed) => written(typed)
	},
	information: { ...byHand(() => []), key: () => '' },
	unreadable: byHand(() => [])
};

/** The things of an ordering question in the order in which they are shown. */
function shownItems({ items, presented }: OfKind<'ordering'>): OfKind<'ordering'>['items'] {
	const shown = presented.flatMap((identifier) => items.find((item) => item.identifier === identifier) ?? []);
	return shown.length === items.length ? shown : items;
}

const onPaper = <Of extends Question>(question: Of) => register[question.kind] as unknown as PaperKind<Of>;
const orderOf = (question: Question, order: readonly number[] | undefined) =>
	order ?? ('options' in question ? question.options.map((_, at) => at) : []);

/** A question as it stands on paper: its stem, what stands under it, its key in few words, how its answer is typed. */
export interface PaperQuestion {
	stem: Markup;
	blocks: PaperBlock[];
	key: string;
	typing: string | null;
}

/** A question, as one student gets it, on paper; `order` is the order of its options by their places. */
export function paperQuestion(question: Question, order?: readonly number[]): PaperQuestion {
	const kind = onPaper(question);
	const shown = orderOf(question, order);
	return {
		stem: kind.stem?.(question) ?? question.stem,
		blocks: kind.blocks(question, shown),
		key: kind.key(question, shown),
		typing: kind.typing
	};
}

/** The credit that is typed as a share: “80 %”; null where it is none. */
function typedShare(typed: string): number | null {
	const share = /^\s*(\d+(?:[.,]\d+)?)\s*%\s*$/.exec(typed)?.[1];
	if (share === undefined) return null;
	const credit = Number(share.replace(',', '.')) / 100;
	return credit <= 1 ? credit : null;
}

/** An answer that was typed: its credit, null where a person still has to give it; or why it cannot be read. */
export type MarkedTyped = { credit: number | null; response: Response | null } | { wrong: string };

/** Marks an answer as it is typed from paper. A share in percent is the credit that a person gave, whatever the kind. */
export function markTyped(question: Question, typed: string, order?: readonly number[]): MarkedTyped {
	if (!typed.trim()) return { credit: 0, response: null };
	const share = typedShare(typed);
	if (share !== null) return { credit: share, response: null };
	const kind = onPaper(question);
	if (kind.typing === null) return { wrong: `“${typed}” is no share: a person marks this, as 80 %.` };
	const read = kind.read(question, orderOf(question, order), typed);
	if ('wrong' in read) return read;
	return { credit: kindOf(question).mark(question, read.response).credit, response: read.response };
}

export type { PaperBlock } from './paper-kind';
