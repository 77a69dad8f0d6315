import { isChoice, type Question } from '../../model/question';
import type { Loss } from '../format';

const languageTag = /^[A-Za-z]{1,8}(-[A-Za-z0-9]{1,8})*$/;

/** What QTI 2.1 as written here cannot carry of a question. */
export function lossInQti21(question: Question): Loss {
	if (question.kind === 'unreadable') {
		if (
			/^<assessmentItem\b[^>]*xmlns\s*=\s*["']http:\/\/www\.imsglobal\.org\/xsd\/imsqti_v2p1["']/.test(
				question.fragment.trim()
			)
		)
			return { outcome: 'kept', what: [], fields: ['feedback', 'metadata'] };
		return { outcome: 'lost', what: ['it could not be read, and its source is of another format'], fields: [] };
	}
	const what: string[] = [];
	const fields: string[] = [];
	const note = (words: string, field: string) => {
		what.push(words);
		fields.push(field);
	};
	if (question.hints.length) note('hints are left out', 'hints');
	if (question.metadata.length) note('extra metadata is left out', 'metadata');
	if (question.language !== null && !languageTag.test(question.language))
		note('the language is left out: its name is no language tag', 'language');
	if (question.points === null && question.kind !== 'essay' && question.kind !== 'information')
		note('points that are not given become 1', 'points');
	if (isChoice(question)) {
		const right = question.options.filter((option) => option.credit > 0);
		if (question.kind === 'multiple-response' && question.combination === 'all' && !right.length)
			note('all or nothing without a key becomes credit by option', 'combination');
		const share = right.length ? Math.round((1 / right.length) * 1e6) / 1e6 : 0;
		if (
			question.kind === 'multiple-response' &&
			question.combination === 'all' &&
			question.options.some((option) => option.credit !== 0 && Math.abs(option.credit - share) > 2e-6)
		)
			note('credit of all-or-nothing options becomes equal shares', 'options');
	}
	return { outcome: what.length ? 'changed' : 'kept', what, fields };
}
