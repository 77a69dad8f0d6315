import { withCommon } from '../../model/question';
import type { AcceptedNumber, AcceptedText } from '../../model/pieces';
import type { Question } from '../../kinds';
import { descendants, trimmed, type XmlElement } from '../../xml/tree';
import { acceptedNumbers, parseNumber } from '../../numbers/numbers';
import { placeFeedback2, type Answer } from './feedback';
import { toleranceOf } from './operators';
import type { ResponseDeclaration } from './process';
import { patternMark } from './values';
import { hasFeedback, isTemplate, runner, type Reading } from './reading';

/** A text that no key has, to see what happens to a wrong answer. */
export const wrongText = '\u0001';
const share = (value: number) => Math.max(-1, Math.min(1, Math.round(value * 1e6) / 1e6));

/** The numbers that rules speak of for a float or integer response, and the values with a tolerance around them. */
export function numbersIn(
	rules: XmlElement | undefined,
	candidates: string[]
): { critical: number[]; centres: { value: number; tolerance: number }[] } {
	const targets = candidates.map(parseNumber).filter((value) => value !== null);
	const around = (rules ? descendants(rules, 'equal') : []).flatMap((node) =>
		targets.map((value) => ({ value, ...toleranceOf(node, value) }))
	);
	const rounded = (rules ? descendants(rules, 'equalRounded') : []).flatMap((node) => {
		const half = 0.5 * 10 ** -Number(node.attributes.figures ?? 0);
		return node.attributes.roundingMode === 'significantFigures'
			? []
			: targets.map((value) => ({ value, below: half, above: half }));
	});
	const all = [...around, ...rounded];
	return {
		critical: [...targets, ...all.flatMap(({ value, below, above }) => [value - below, value + above])],
		centres: all.filter(({ below, above }) => below === above).map(({ value, below }) => ({ value, tolerance: below }))
	};
}

/** The texts that rules hold answers against: patterns with their mark in front. */
export function textsIn(rules: XmlElement | undefined): string[] {
	if (!rules) return [];
	const patterns = descendants(rules, 'patternMatch').map((node) => patternMark + (node.attributes.pattern ?? ''));
	const compared = descendants(rules, 'stringMatch', 'match', 'equal', 'equalRounded', 'lt', 'lte', 'gt', 'gte').length;
	return [...(compared ? descendants(rules, 'baseValue', 'value').map(trimmed) : []), ...patterns];
}

/** The accepted texts among candidates by trying them; `credit` gives what a text earns. */
export function acceptedTexts(candidates: string[], credit: (text: string) => number): AcceptedText[] {
	return candidates
		.map((candidate): AcceptedText => {
			const earned = credit(candidate);
			if (candidate.startsWith(patternMark))
				return { text: candidate.slice(1), credit: earned, caseSensitive: true, match: 'pattern' };
			const other = candidate === candidate.toUpperCase() ? candidate.toLowerCase() : candidate.toUpperCase();
			const contained = earned !== 0 && credit(`\u0001 ${candidate} \u0001`) === earned;
			return {
				text: candidate,
				credit: earned,
				caseSensitive: other === candidate ? false : credit(other) !== earned,
				...(contained ? { match: 'contains' as const } : {})
			};
		})
		.filter((one) => one.credit !== 0);
}

/** Reads a text entry, a number, or a slider (2.1, 7.3.2 and 7.5.3). */
export function readEntry(reading: Reading, interaction: XmlElement, declaration: ResponseDeclaration): Question {
	const { common, cleaning, item, rules } = reading;
	const run = runner(reading, declaration.identifier);
	const scale = interaction.name === 'sliderInteraction';
	const numeric = scale || ['integer', 'float'].includes(declaration.baseType);
	const keys = [...declaration.correct, ...(declaration.mapping?.entries.map((entry) => entry.key) ?? [])];
	const worth = (text: string) =>
		declaration.mapping ? (declaration.mapping.entries.find((entry) => entry.key === text)?.value ?? 0) : 1;
	const tried = new Map<string, number>();
	const scoreOf = (text: string): number => {
		const known = tried.get(text);
		if (known !== undefined) return known;
		const score = rules ? run([text]).score : keys.includes(text) ? worth(text) : 0;
		tried.set(text, score);
		return score;
	};
	const candidates = [...new Set([...keys, ...textsIn(rules)])].filter((text) => text !== '');
	const reachable = Math.max(0, ...candidates.map(scoreOf));
	const full = isTemplate(rules, 'match_correct')
		? 1
		: rules
			? common.points || reachable || 1
			: Math.max(1, reachable);
	common.points ??= rules && reachable ? full : null;
	const credit = (text: string) => share(scoreOf(text) / full);
	const answers: Answer[] = (hasFeedback(item) ? [...candidates, wrongText] : []).map((text) => ({
		outcomes: run([text]).outcomes,
		credit: credit(text),
		option: null
	}));
	placeFeedback2(item, common, answers, cleaning);
	if (numeric) {
		const { critical, centres } = numbersIn(rules, candidates);
		const accepted: AcceptedNumber[] = acceptedNumbers(critical, (value) => credit(String(value)), centres);
		const slider = scale && {
			lower: parseNumber(interaction.attributes.lowerBound ?? '') ?? 0,
			upper: parseNumber(interaction.attributes.upperBound ?? '') ?? 0,
			step: parseNumber(interaction.attributes.step ?? '')
		};
		return withCommon(common, {
			kind: 'numeric',
			whole: declaration.baseType === 'integer',
			accepted,
			...(reading.unit ? { unit: reading.unit } : {}),
			...(slider ? { slider } : {})
		});
	}
	const accepted = acceptedTexts(candidates, credit);
	// a mapping says outright what is accepted; it is believed where the rules bear it out
	const mapped = declaration.mapping?.entries.map(({ key, value, caseSensitive }) => ({
		text: key,
		credit: share(value / full),
		caseSensitive
	}));
	const agrees = mapped?.every(
		(text) =>
			credit(text.text) ===
			(mapped.find(
				(other) =>
					other.text === text.text || (!other.caseSensitive && other.text.toLowerCase() === text.text.toLowerCase())
			)?.credit ?? 0)
	);
	const others = accepted.some((one) => !mapped?.some(({ text }) => text === one.text));
	return withCommon(common, { kind: 'short-answer', accepted: mapped && agrees && !others ? mapped : accepted });
}
