import { emptyCommon } from '../../model/question';
import type { Report } from '../../reports/report';
import type { ReaderRule } from '../../reports/rules';
import { assemble } from '../drafts/assemble';
import type { KeyForm } from '../drafts/draft';
import type { DocumentContext, ReadEvent } from '../format';
import { cleaningFor } from '../media';
import { progressAt, toldEvery } from '../progress';
import { draftOf } from './fields';
import type { RecordAccess } from './record';
import type { Recipe } from './recipe';
import { unusedFields } from './unused';

const defaultForms: KeyForm[] = ['letter', 'text', 'index', 'truth', 'answer'];

/** The records of a document, each made when it is asked for, so that those of a large one are never held together. */
export interface Records {
	count: number;
	at: (place: number) => { access: RecordAccess; line: number; source: () => string };
}

function* accessTo({ count, at }: Records): Generator<RecordAccess> {
	for (let place = 0; place < count; place += 1) yield at(place).access;
}

function* optionsOf(records: Records, recipe: Recipe): Generator<RecordAccess> {
	for (const access of accessTo(records)) for (const path of [recipe.options ?? []].flat()) yield* access.parts(path);
}

/** The questions of records by a recipe, with what no field of it takes. */
export function* recordEvents(records: Records, recipe: Recipe, context: DocumentContext): Generator<ReadEvent> {
	const unused = [
		...unusedFields(accessTo(records), recipe).map(
			({ name, count }) => `“${name}” (in ${count} of ${records.count} questions)`
		),
		...unusedFields(optionsOf(records, recipe), recipe).map(
			({ name, count }) => `“${name}” of the options (${count} times)`
		)
	];
	if (unused.length)
		yield {
			type: 'report',
			report: {
				rule: 'unused-field',
				severity: 'doubtful',
				message: `“${context.file}”: what stands under ${unused.join(', ')} was left out, since nothing says what it means. Say it with a recipe.`,
				place: { file: context.file, line: 1 }
			}
		};
	// whether keys are numbers, and whether all of them could count from 0
	let counted = false;
	let fromNought = true;
	for (let at = 0; at < records.count; at += 1) {
		const { access, line, source } = records.at(at);
		const fragment = source();
		if (at % toldEvery === 0) yield progressAt(context, at, records.count);
		const holder = emptyCommon('', '');
		const draft = draftOf(access, recipe, cleaningFor(holder, context));
		for (const key of draft.options.length ? (draft.keys ?? []) : [])
			if (/^\d{1,2}$/.test(key)) {
				counted = true;
				fromNought &&= Number(key) < draft.options.length;
			}
		const { question, reports } = assemble(draft, {
			keyForms: recipe.keyForms ?? defaultForms,
			...(recipe.kinds ? { kindNames: recipe.kinds } : {}),
			identifier: '',
			file: context.file,
			line,
			endLine: line + (fragment.match(/\n/g)?.length ?? 0),
			format: context.format
		});
		question.attachments = holder.attachments;
		question.removed = holder.removed;
		yield { type: 'question', question, fragment, reports };
	}
	// a 0, or the number of the last option counted from 1, would show it
	if (context.recipe || !counted || !fromNought || recipe.keyForms?.includes('index0')) return;
	yield {
		type: 'report',
		report: {
			rule: 'guessed-key',
			severity: 'doubtful',
			message: `“${context.file}”: its keys are numbers, and nothing in it shows whether they count from 0 or from 1. They were counted from 1, so that 1 is the first option. Look at some of them, and say it with a recipe if they count from 0.`,
			place: { file: context.file, line: records.at(0).line }
		}
	};
}

/** Says what is wrong with a document as a whole. */
export const trouble = (context: DocumentContext, rule: ReaderRule, message: string, line = 1): ReadEvent => ({
	type: 'report',
	report: { rule, severity: 'broken', message, place: { file: context.file, line } } satisfies Report
});
