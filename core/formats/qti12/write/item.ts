import { isChoice, type Question } from '../../../kinds';
import { tidy } from '../../../numbers/numbers';
import { escapeAttribute, escapeText } from '../../../xml/serialise';
import { condition, not, setvar } from './conditions';
import { material } from './html';
import { blankParts } from './parts/blanks';
import { choiceParts } from './parts/choice';
import { pointParts } from './parts/hotspot';
import { matchParts } from './parts/matching';
import { orderParts } from './parts/ordering';
import { fib, stemOf, type Address, type Parts } from './parts/parts';
import { writtenParts } from './parts/written';

function partsOf(question: Question, scale: number, address: Address): Parts {
	if (isChoice(question)) return choiceParts(question, scale, address);
	const stem = stemOf(question.stem, address);
	switch (question.kind) {
		case 'short-answer':
		case 'numeric':
			return writtenParts(question, scale, address);
		case 'fill-blanks':
			return blankParts(question, scale, address);
		case 'matching':
			return matchParts(question, scale, address);
		case 'ordering':
			return orderParts(question, scale, address);
		case 'hotspot':
			return pointParts(question, scale, address);
		case 'essay':
			return {
				presentation: `${stem}<response_str ident="R" rcardinality="Single">${fib('String', 8)}</response_str>`,
				points: [],
				right: ''
			};
		// without a response of its own: what the limits say is not held never comes here as it is
		case 'information':
		case 'file-upload':
		case 'label-image':
		case 'calculated':
		case 'unreadable':
			return { presentation: stem || material('', address), points: [], right: '' };
	}
}

/** How an item says its points and its other properties, which the profiles do in their own ways. */
export interface Profile {
	/** The labels and entries of the item's metadata. */
	fields: (question: Question) => [string, string][];
	/** The score that stands for all the points. */
	scale: (question: Question) => number;
	/** The order of the conditions of kinds that a person marks. */
	cartridge: boolean;
}

/** The greatest sum of what is taken off, so that no bound of the score hides any of it. */
function least(question: Question): number {
	const credits = isChoice(question)
		? question.options.map((option) => option.credit)
		: question.kind === 'matching'
			? question.pairs.map((pair) => pair.credit)
			: question.kind === 'hotspot'
				? question.shapes.map((shape) => shape.credit)
				: question.kind === 'short-answer' || question.kind === 'numeric'
					? question.accepted.map((one) => one.credit)
					: [];
	return credits.filter((credit) => credit < 0).reduce((sum, credit) => sum + credit, 0);
}

/** One question as an item (QTI 1.2 ASI binding, 3.3). */
export function writeItem12(question: Question, ident: string, address: Address, profile: Profile): string {
	if (question.kind === 'unreadable') return question.fragment.trim();
	const scale = profile.scale(question);
	const parts = partsOf(question, scale, address);
	const { general, correct, incorrect } = question.feedback;
	const show = (link: string) => `<displayfeedback feedbacktype="Response" linkrefid="${link}"/>`;
	const other = '<other/>';
	const told = [
		...(parts.shown ?? []),
		...(correct ? [condition(parts.right || other, show('correct'), true)] : []),
		...(incorrect ? [condition(not(parts.right) || other, show('incorrect'), true)] : []),
		...(general ? [condition(other, show('general'), true)] : []),
		...question.hints.map((_, at) =>
			condition(other, `<displayfeedback feedbacktype="Hint" linkrefid="hint ${at + 1}"/>`, true)
		)
	];
	// a written answer without a key is told from an essay by its marking
	const keyless =
		question.kind === 'short-answer' && !parts.points.length
			? [condition('<unanswered respident="R"/>', setvar(0, 'Set'), true)]
			: [];
	const conditions = [...told, ...parts.points, ...keyless];
	const minimum = least(question) * scale;
	const byPerson = ['essay', 'information'].includes(question.kind);
	const most = byPerson ? '' : ` maxvalue="${tidy(scale)}"`;
	const processing = conditions.length
		? `<resprocessing><outcomes><decvar varname="SCORE" vartype="Decimal" defaultval="0" minvalue="${tidy(minimum)}"${most}/></outcomes>${conditions.join('')}</resprocessing>`
		: '';
	const feedback = [
		...(parts.feedback ?? []),
		...(correct ? [{ ident: 'correct', markup: correct }] : []),
		...(incorrect ? [{ ident: 'incorrect', markup: incorrect }] : []),
		...(general ? [{ ident: 'general', markup: general }] : [])
	]
		.map((one) => `<itemfeedback ident="${one.ident}">${material(one.markup, address)}</itemfeedback>`)
		.join('');
	const hints = question.hints
		.map(
			(hint, at) =>
				`<itemfeedback ident="hint ${at + 1}"><hint><hintmaterial>${material(hint, address)}</hintmaterial></hint></itemfeedback>`
		)
		.join('');
	const fields = profile
		.fields(question)
		.map(
			([name, value]) =>
				`<qtimetadatafield><fieldlabel>${escapeText(name)}</fieldlabel><fieldentry>${escapeText(value)}</fieldentry></qtimetadatafield>`
		)
		.join('');
	const metadata = fields ? `<itemmetadata><qtimetadata>${fields}</qtimetadata></itemmetadata>` : '';
	const language = question.language ? ` xml:lang="${question.language}"` : '';
	return `<item ident="${escapeAttribute(ident)}" title="${escapeAttribute(question.title)}"${language}>${metadata}<presentation>${parts.presentation}</presentation>${processing}${feedback}${hints}</item>`;
}
