import { withCommon } from '../../model/question';
import type { AcceptedText } from '../../model/pieces';
import type { Blank, Question } from '../../kinds';
import { childOf, descendants, trimmed, type XmlElement } from '../../xml/tree';
import { acceptedNumbers, parseNumber } from '../../numbers/numbers';
import { placeFeedback, type Trial } from './feedback';
import { conditionsOn, criticalNumbers, numberType, run12, settlePoints12, type Reading12 } from './reading';

const share = (value: number) => Math.max(-1, Math.min(1, Math.round(value * 1e6) / 1e6));

/** The texts that conditions accept, with what each earns by trying. */
export function acceptedOf(conditions: XmlElement[], credit: (text: string) => number): AcceptedText[] {
	const comparing = conditions.filter((node) => ['varequal', 'varsubstring', 'varsubset'].includes(node.name));
	const texts = [...new Set(comparing.map(trimmed))].filter(Boolean);
	const strict = (text: string) =>
		comparing.some((node) => trimmed(node) === text && /^yes$/i.test(node.attributes.case ?? ''));
	return texts
		.map((text): AcceptedText => {
			const earned = credit(text);
			const contained =
				comparing.some((node) => node.name === 'varsubstring' && trimmed(node) === text) &&
				credit(`\u0001 ${text} \u0001`) === earned;
			return {
				text,
				credit: earned,
				caseSensitive: strict(text),
				...(contained ? { match: 'contains' as const } : {})
			};
		})
		.filter((one) => one.credit !== 0);
}

/** Whether a text response is answered at length, with nothing that a machine could hold it against. */
export function isOpen(reading: Reading12, response: XmlElement): boolean {
	const [fib] = descendants(response, 'render_fib');
	const rows = parseNumber(fib?.attributes.rows ?? '1') ?? 1;
	const profile = reading.metadata.get('cc_profile') ?? '';
	return (
		!conditionsOn(reading, response.attributes.ident ?? '').length &&
		(rows > 1 || !reading.processing || /essay/.test(profile))
	);
}

/** Reads one response that is written or set on a scale (ASI information model, 3.5.2 to 3.5.4). */
export function readText12(reading: Reading12, response: XmlElement): Question {
	const { common, item, cleaning, full } = reading;
	const ident = response.attributes.ident ?? '';
	const conditions = conditionsOn(reading, ident);
	const scoreOf = (value: string) => run12(reading, new Map([[ident, [value]]])).score;
	const best = full ?? Math.max(1, ...conditions.map((node) => scoreOf(trimmed(node))));
	settlePoints12(reading, best);
	const credit = (value: string) => share(scoreOf(value) / best);
	const trialOf = (value: string): Trial => ({
		responses: new Map([[ident, [value]]]),
		full: credit(value) >= 1,
		option: null
	});
	placeFeedback(
		item,
		common,
		[...conditions.map((node) => trialOf(trimmed(node))), trialOf('\u0001')],
		cleaning,
		reading.cardinalities
	);
	const type = numberType(response);
	if (type) {
		const slider = childOf(response, 'render_slider');
		return withCommon(common, {
			kind: 'numeric',
			whole: type === 'integer',
			accepted: acceptedNumbers(criticalNumbers(conditions), (value) => credit(String(value)), []),
			...(slider
				? {
						slider: {
							lower: parseNumber(slider.attributes.lowerbound ?? '') ?? 0,
							upper: parseNumber(slider.attributes.upperbound ?? '') ?? 0,
							step: parseNumber(slider.attributes.step ?? '')
						}
					}
				: {})
		});
	}
	if (isOpen(reading, response)) return withCommon(common, { kind: 'essay' });
	return withCommon(common, { kind: 'short-answer', accepted: acceptedOf(conditions, credit) });
}

/** A text or number response as the form of a blank. */
export function blankForm(
	reading: Reading12,
	response: XmlElement,
	credit: (value: string) => number
): Extract<Blank, { form: 'text' | 'number' | 'open' }> {
	const base = { identifier: response.attributes.ident ?? '', share: 0 };
	const conditions = conditionsOn(reading, base.identifier);
	const type = numberType(response);
	if (type)
		return {
			...base,
			form: 'number',
			whole: type === 'integer',
			accepted: acceptedNumbers(criticalNumbers(conditions), (value) => credit(String(value)), [])
		};
	if (isOpen(reading, response)) return { ...base, form: 'open' };
	return { ...base, form: 'text', accepted: acceptedOf(conditions, credit) };
}
