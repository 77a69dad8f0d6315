import { plainText } from '../markup/text';
import {
	isChoice,
	type AcceptedNumber,
	type AcceptedText,
	type Blank,
	type Bounds,
	type Markup,
	type Pair,
	type Picture,
	type Question,
	type Shape,
	type Side,
	type Variable
} from '../model/question';
import { acceptedNumberText } from '../scoring/score';

/** One part of a question: its name for people, what it says in words, and the rich text behind that where there is one. */
export interface Part {
	name: string;
	text: string;
	markup?: Markup;
}

const percent = (credit: number) => `${Math.round(credit * 1000) / 10} %`;
const worth = (credit: number) => (credit === 1 ? '' : ` (${percent(credit)})`);
const rich = (name: string, markup: Markup, more = ''): Part => ({ name, text: plainText(markup) + more, markup });
const yesOrNo = (value: boolean | null) => (value === null ? '' : value ? 'yes' : 'no');

const textsOf = (accepted: AcceptedText[]) =>
	accepted
		.map(
			({ text, credit, caseSensitive, match }) =>
				`${match === 'pattern' ? `pattern ${text}` : match === 'contains' ? `with ${text} in it` : text}${worth(credit)}${caseSensitive ? ', by case' : ''}`
		)
		.join('; ');
const numbersOf = (accepted: AcceptedNumber[]) =>
	accepted.map((one) => acceptedNumberText(one) + worth(one.credit)).join('; ');
const boundsOf = ({ lower, upper }: Bounds) =>
	lower === null && upper === null
		? ''
		: `${lower === null ? '' : `no less than ${percent(lower)}`} ${upper === null ? '' : `no more than ${percent(upper)}`}`.trim();
const pictureText = ({ alt, width, height }: Picture) =>
	`${alt}${width === null || height === null ? '' : ` (${width} by ${height})`}`.trim();
const shapeText = ({ shape, coordinates }: Shape) => `${shape} ${coordinates.join(', ')}`;
const sideParts = (name: string, sides: Side[]): Part[] =>
	sides.map((side, at) =>
		rich(`${name} ${at + 1}`, side.text, side.uses === null ? '' : `, used ${side.uses} times at most`)
	);

function blankText(blank: Blank, bank: Side[]): string {
	const share = ` (${percent(blank.share)} of the points)`;
	if (blank.form === 'text') return textsOf(blank.accepted) + share;
	if (blank.form === 'number') return `${numbersOf(blank.accepted)}${blank.whole ? ', whole' : ''}${share}`;
	if (blank.form === 'list')
		return `${blank.entries.map((one) => `${plainText(one.text)} (${percent(one.credit)})`).join('; ')}${blank.several ? ', several may be chosen' : ''}${blank.shuffle ? ', shuffled' : ''}${share}`;
	if (blank.form === 'word')
		return (
			blank.words
				.map(({ word, credit }) => plainText(bank.find((one) => one.identifier === word)?.text ?? '') + worth(credit))
				.join('; ') + share
		);
	return `at length${share}`;
}

function variableText({ name, whole, decimals, values }: Variable): string {
	const from =
		values.form === 'range'
			? `${values.min} to ${values.max}${values.step === null ? '' : ` in steps of ${values.step}`}`
			: values.form === 'set'
				? values.values.join(', ')
				: `= ${values.expression}`;
	return `${name}: ${from}${whole ? ', whole' : ''}${decimals === null ? '' : `, ${decimals} decimals`}`;
}

const pairParts = (pairs: Pair[], nameOf: (pair: Pair) => string): Part[] =>
	pairs.map((pair, at) => ({ name: `pair ${at + 1}`, text: `${nameOf(pair)} (${percent(pair.credit)})` }));

/** What belongs to one kind of question alone. */
function ownParts(question: Question): Part[] {
	if (isChoice(question))
		return [
			...question.options.flatMap((option, at) => [
				rich(
					`option ${at + 1}`,
					option.text,
					`${option.credit ? ` (${percent(option.credit)})` : ''}${option.pinned ? ', pinned' : ''}`
				),
				...(option.feedback ? [rich(`feedback to option ${at + 1}`, option.feedback)] : [])
			]),
			{ name: 'options are shuffled', text: yesOrNo(question.shuffle) },
			{
				name: 'credit',
				text: `${question.combination === 'all' ? 'all or nothing' : ''} ${boundsOf(question.bounds)}`.trim()
			}
		];
	const text = (list: Side[], identifier: string) =>
		plainText(list.find((one) => one.identifier === identifier)?.text ?? '');
	const credit = (one: { combination: string; bounds?: Bounds }): Part => ({
		name: 'credit',
		text: `${one.combination === 'all' ? 'all or nothing' : ''} ${one.bounds ? boundsOf(one.bounds) : ''}`.trim()
	});
	switch (question.kind) {
		case 'short-answer':
			return [{ name: 'accepted', text: textsOf(question.accepted) }];
		case 'numeric': {
			const { slider } = question;
			return [
				{ name: 'accepted', text: numbersOf(question.accepted) },
				{ name: 'unit', text: question.unit ?? '' },
				{ name: 'whole numbers only', text: question.whole ? 'yes' : '' },
				{
					name: 'scale',
					text: slider
						? `${slider.lower} to ${slider.upper}${slider.step === null ? '' : ` in steps of ${slider.step}`}`
						: ''
				}
			];
		}
		case 'fill-blanks':
			return [
				...question.blanks.map((blank, at) => ({ name: `blank ${at + 1}`, text: blankText(blank, question.bank) })),
				...sideParts('word', question.bank),
				credit(question),
				{ name: 'words are shuffled', text: yesOrNo(question.shuffle) }
			];
		case 'matching':
			return [
				...pairParts(
					question.pairs,
					(pair) => `${text(question.left, pair.left)} = ${text(question.right, pair.right)}`
				),
				...sideParts('on the left', question.left),
				...sideParts('on the right', question.right),
				credit(question),
				{ name: 'shuffled', text: yesOrNo(question.shuffle) }
			];
		case 'ordering': {
			const shown = question.presented.map(
				(identifier) => question.items.findIndex((one) => one.identifier === identifier) + 1
			);
			return [
				...question.items.map((one, at) => rich(`place ${at + 1}`, one.text)),
				{ name: 'shown in the order', text: shown.join(', ') },
				{ name: 'credit', text: question.rule === 'all' ? 'all or nothing' : 'each place for itself' },
				{ name: 'shuffled', text: yesOrNo(question.shuffle) }
			];
		}
		case 'hotspot':
			return [
				...question.shapes.map((shape, at) => ({
					name: `area ${at + 1}`,
					text: `${shapeText(shape)} (${percent(shape.credit)})`
				})),
				{ name: 'picture', text: pictureText(question.picture) },
				{ name: 'how many may be chosen', text: `${question.picks || 'any number of'} ${question.mode}` },
				{ name: 'outside', text: question.outside ? percent(question.outside) : '' },
				credit(question)
			];
		case 'label-image':
			return [
				...pairParts(
					question.pairs,
					(pair) =>
						`${text(question.labels, pair.left)} at place ${question.targets.findIndex((one) => one.identifier === pair.right) + 1}`
				),
				...sideParts('label', question.labels),
				...question.targets.map((one, at) => ({
					name: `place ${at + 1}`,
					text: `${shapeText(one)}${one.uses === null ? '' : `, used ${one.uses} times at most`}`
				})),
				{ name: 'picture', text: pictureText(question.picture) },
				credit(question)
			];
		case 'calculated':
			return [
				{ name: 'expression', text: question.expression },
				...question.variables.map((one, at) => ({ name: `variable ${at + 1}`, text: variableText(one) })),
				{ name: 'constraints', text: question.constraints.join('; ') },
				{
					name: 'tolerance',
					text:
						question.tolerance.mode === 'relative' ? percent(question.tolerance.value) : `± ${question.tolerance.value}`
				},
				{ name: 'unit', text: question.unit ?? '' },
				{ name: 'whole numbers only', text: question.whole ? 'yes' : '' }
			];
		case 'file-upload':
			return [{ name: 'files that are taken', text: question.accepts ?? '' }];
		case 'unreadable':
			return [{ name: 'source', text: question.fragment }];
		case 'essay':
		case 'information':
			return [];
	}
}

/** Everything that a question says, in parts with names, in the order in which it is read. */
export function partsOf(question: Question): Part[] {
	return [
		{ name: 'kind', text: question.kind },
		{ name: 'title', text: question.title },
		...(question.stimulus ? [rich('what several questions share', question.stimulus.content)] : []),
		rich('stem', question.stem),
		{ name: 'points', text: question.points === null ? '' : String(question.points) },
		{ name: 'category', text: question.category.join(' › ') },
		{ name: 'tags', text: [...question.tags].sort().join(', ') },
		...ownParts(question),
		...Object.entries(question.feedback).flatMap(([name, markup]) =>
			markup ? [rich(`feedback, ${name}`, markup as Markup)] : []
		),
		...question.hints.map((hint, at) => rich(`hint ${at + 1}`, hint)),
		{ name: 'difficulty', text: question.difficulty ?? '' },
		{ name: 'language', text: question.language ?? '' },
		{ name: 'kept beside it', text: question.metadata.map((one) => `${one.name}: ${one.value}`).join('; ') }
	];
}
