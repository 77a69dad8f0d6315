import type { AcceptedNumber, AcceptedText } from '../../../model/pieces';
import { escapeAttribute, escapeText } from '../../../xml/serialise';

/** The test of whether a response is an accepted number (2.1, 15.3: equal, lt, lte, gt, gte). */
export function numberTest(accepted: AcceptedNumber, name = 'RESPONSE'): string {
	const base = (value: number) => `<baseValue baseType="float">${value}</baseValue>`;
	const variable = `<variable identifier="${name}"/>`;
	if ('value' in accepted)
		return accepted.tolerance
			? `<equal toleranceMode="absolute" tolerance="${accepted.tolerance} ${accepted.tolerance}">${variable}${base(accepted.value)}</equal>`
			: `<equal toleranceMode="exact">${variable}${base(accepted.value)}</equal>`;
	const test = (element: string, value: number) => `<${element}>${variable}${base(value)}</${element}>`;
	const tests = [
		...(accepted.min === null ? [] : [test(accepted.includesMin ? 'gte' : 'gt', accepted.min)]),
		...(accepted.max === null ? [] : [test(accepted.includesMax ? 'lte' : 'lt', accepted.max)])
	];
	if (!tests.length) return `<not><isNull>${variable}</isNull></not>`;
	return tests.length > 1 ? `<and>${tests.join('')}</and>` : tests[0]!;
}

/** The test of whether a response is an accepted text (2.1, 15.3: stringMatch, patternMatch). */
export function textTest(accepted: AcceptedText, name = 'RESPONSE'): string {
	const variable = `<variable identifier="${name}"/>`;
	if (accepted.match === 'pattern')
		return `<patternMatch pattern="${escapeAttribute(accepted.text)}">${variable}</patternMatch>`;
	const substring = accepted.match === 'contains' ? ' substring="true"' : '';
	return `<stringMatch caseSensitive="${accepted.caseSensitive}"${substring}>${variable}<baseValue baseType="string">${escapeText(accepted.text)}</baseValue></stringMatch>`;
}
