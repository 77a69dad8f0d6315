import { describe, expect, it } from 'vitest';
import { choice } from '../test-support/questions';
import { cleanOwn } from '../kinds/clean-own';

describe('rich text that anybody may have written into a question', () => {
	it('loses what can do harm, and says that there was some', () => {
		const { stem, removed } = cleanOwn(choice({ stem: '<p onclick="go()">Which <script>steal()</script>cloud?</p>' }));
		expect(stem).toBe('Which cloud?');
		expect(removed).toEqual(['onclick handler', 'script']);
	});
	it('is read as HTML where it is no well-formed markup, so that nothing of it is lost', () => {
		expect(cleanOwn(choice({ stem: 'High water<br>and <b>low' })).stem).toBe(
			'High water<br/>and <b>low</b>'.replace(/b>/g, 'b>')
		);
	});
	it('keeps the places of blanks, variables and pictures', () => {
		const stem =
			'At <var class="variable">S</var> knots <span class="blank" id="B1"/> <img src="media:chart.svg" alt="chart"/>';
		expect(cleanOwn(choice({ stem })).stem).toBe(stem);
	});
	it('cleans options and feedback too', () => {
		const question = choice();
		question.options[0]!.text = '<a href="javascript:go()">Cirrus</a>';
		question.options[0]!.feedback = '<iframe src="x"/>Yes';
		const cleaned = cleanOwn(question);
		expect(JSON.stringify(cleaned)).not.toMatch(/javascript:go|iframe src/);
		expect('options' in cleaned && cleaned.options[0]!.text).toContain('Cirrus');
	});
});
