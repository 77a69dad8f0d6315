import { describe, expect, it } from 'vitest';
import { Gathering } from '../core/checks/many';
import { checkQuestion } from '../core/checks/one';
import { mendTools } from '../core/formats/mend-tools';
import { languagesOf } from '../core/language/detect';
import { buoyage } from './banks/buoyage';
import { tides } from './banks/tides';

const tools = { ...mendTools, languagesOf };

describe('the demo banks in good order', () => {
	it.each([
		['Tides and Charts', tides],
		['Buoyage and Lights', buoyage]
	])('%s has no snag that breaks or makes doubtful', (_, questions) => {
		const gathering = new Gathering(tools);
		questions.forEach((question, at) => gathering.add(at, question, { bank: '', category: question.category }));
		const said = [
			...questions.flatMap((question) => checkQuestion(question).map(({ rule, severity }) => ({ rule, severity }))),
			...[...gathering.findings()].map(({ check: { id, severity } }) => ({ rule: id, severity }))
		];
		expect(said.filter(({ severity }) => severity !== 'untidy')).toEqual([]);
	});
});
