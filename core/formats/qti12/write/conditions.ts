import type { AcceptedNumber, AcceptedText, Shape } from '../../../model/pieces';
import { escapeAttribute, escapeText } from '../../../xml/serialise';
import { tidy } from '../../../numbers/numbers';
import { areaText } from '../areas';

/** All of some conditions; the only one by itself, nothing for none. */
export const allOf = (tests: string[]) => {
	const some = tests.filter(Boolean);
	return some.length > 1 ? `<and>${some.join('')}</and>` : (some[0] ?? '');
};

/** Any of some conditions. */
export const anyOf = (tests: string[]) => {
	const some = tests.filter(Boolean);
	return some.length > 1 ? `<or>${some.join('')}</or>` : (some[0] ?? '');
};

/** The opposite of a condition. */
export const not = (test: string) => (test ? `<not>${test}</not>` : '');

/** The test of whether a response names something. */
export const equals = (ident: string, value: string, index?: number) =>
	`<varequal respident="${escapeAttribute(ident)}"${index === undefined ? '' : ` index="${index}"`} case="Yes">${escapeText(value)}</varequal>`;

/** The test of an accepted text. */
export function textTest(ident: string, { text, caseSensitive, match }: AcceptedText): string {
	const name = match === 'contains' ? 'varsubstring' : 'varequal';
	return `<${name} respident="${escapeAttribute(ident)}" case="${caseSensitive ? 'Yes' : 'No'}">${escapeText(text)}</${name}>`;
}

/** The test of an accepted number. */
export function numberTest(ident: string, accepted: AcceptedNumber): string {
	const test = (name: string, value: number) =>
		`<${name} respident="${escapeAttribute(ident)}">${tidy(value)}</${name}>`;
	if ('value' in accepted)
		return accepted.tolerance
			? allOf([
					test('vargte', accepted.value - accepted.tolerance),
					test('varlte', accepted.value + accepted.tolerance)
				])
			: test('varequal', accepted.value);
	const tests = [
		accepted.min === null ? '' : test(accepted.includesMin ? 'vargte' : 'vargt', accepted.min),
		accepted.max === null ? '' : test(accepted.includesMax ? 'varlte' : 'varlt', accepted.max)
	];
	return allOf(tests) || `<not><unanswered respident="${escapeAttribute(ident)}"/></not>`;
}

/** The test of a point within a shape; empty for a shape that the standard has no name for. */
export function insideTest(ident: string, shape: Shape): string {
	const area = areaText(shape);
	return area
		? `<varinside respident="${escapeAttribute(ident)}" areatype="${area.type}">${area.text}</varinside>`
		: '';
}

/** A condition with what it does. */
export function condition(test: string, effects: string, goesOn: boolean): string {
	return `<respcondition continue="${goesOn ? 'Yes' : 'No'}"><conditionvar>${test}</conditionvar>${effects}</respcondition>`;
}

/** Sets the score, or adds to it. */
export const setvar = (value: number, action: 'Set' | 'Add') =>
	`<setvar varname="SCORE" action="${action}">${tidy(value)}</setvar>`;
