import Papa from 'papaparse';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { pathKey } from '$core/take-in/paths';
import { run } from '../db/pool';
import { bankXml, decide, item, loadPackage, makeCourse, testPool } from '../test-support/world';
import { compareElsewhere, keepTold } from './elsewhere';
import { loadOf } from './loads';
import { receiptCsv, receiptHtml } from './receipt-file';
import { takeIn } from './take-in';

const pool = testPool();
afterAll(() => pool.end());
let course: Awaited<ReturnType<typeof makeCourse>>;
beforeEach(async () => {
	course = await makeCourse(pool);
});
const stems = ['Which light burns to port?', 'Which light burns to starboard?', 'Which flag means yes?'];
const bank = (count: number, more: string[] = []) => ({
	'b.xml': bankXml({
		'Lights &amp; flags': [...stems.slice(0, count).map((stem, at) => item(`q${at}`, stem, ['Red', 'Green'])), ...more]
	})
});
async function taken() {
	const id = await loadPackage(pool, course, bank(3, [item('=1+1', 'Which is keyless?', ['This', 'That'], null)]));
	await takeIn(pool, course.courseId, id, course.personId, decide());
	return (await loadOf(pool, course.courseId, id))!;
}

describe('a receipt that is downloaded', () => {
	it('as CSV has a line for every question, with what became of it and why', async () => {
		const text = await receiptCsv(pool, await taken());
		expect(text.startsWith('\ufeffNumber,')).toBe(true);
		const { data } = Papa.parse<string[]>(text.slice(1).trim());
		expect(data).toHaveLength(5);
		expect(data[1]).toEqual(['1', 'q0', 'Multiple choice', 'Lights & flags', 'taken in', '']);
		expect(data[4]!.slice(3)).toEqual(['Lights & flags', 'set aside', 'No option is marked as right. Mark the key.']);
		// a title that begins like a formula is text for a spreadsheet
		expect(data[4]![1]).toBe("'=1+1");
	});
	it('as CSV runs nothing in a spreadsheet, also behind a line end', async () => {
		const id = await loadPackage(pool, course, bank(2));
		await run(pool, 'UPDATE staged_questions SET category_path = ?, title = ? WHERE load_id = ? AND number = 1', [
			pathKey(['=1+1\rx']),
			'\r\n@SUM(A1)',
			id
		]);
		await takeIn(pool, course.courseId, id, course.personId, decide());
		const text = await receiptCsv(pool, (await loadOf(pool, course.courseId, id))!);
		const { data } = Papa.parse<string[]>(text.slice(1).trim(), { newline: '\r\n' });
		expect(data.flat().filter((cell) => /^\s*[=+@-]/.test(cell))).toEqual([]);
		expect(data.flat().some((cell) => cell.startsWith("'=1+1"))).toBe(true);
	});
	it('as HTML adds up, stands alone, and shows text as text', async () => {
		const html = await receiptHtml(pool, await taken(), 'Lights <i>');
		expect(html).toContain('<td>Lights &amp; flags</td><td class="n">4</td><td class="n">3</td>');
		expect(html).toContain('Lights &lt;i&gt;');
		expect(html).not.toMatch(/<script|<link|src=/);
		expect(html).toContain('No option is marked as right');
	});
});

describe('what another system has made of a load', () => {
	it('is counted', async () => {
		const load = await taken();
		await keepTold(pool, course.courseId, load.id, 2);
		expect(await loadOf(pool, course.courseId, load.id)).toMatchObject({ told_count: 2, taken: 3 });
	});
	it('is held against its own export, and what it lost is named', async () => {
		const load = await taken();
		const back = await loadPackage(
			pool,
			course,
			{
				'b.xml': bankXml({
					'Lights &amp; flags': [
						item('q0', stems[0]!, ['Red', 'Green']),
						item('q1', `${stems[1]!} Say which.`, ['Red', 'Green']),
						item('z', 'Which sound is one long blast?', ['A', 'B'])
					]
				})
			},
			'export.zip'
		);
		expect(await compareElsewhere(pool, course.courseId, load.id, back)).toMatchObject({
			fileName: 'export.zip',
			same: 1,
			changed: [{ title: 'q1', parts: ['stem'] }],
			lost: ['q2'],
			more: ['z']
		});
		const other = await makeCourse(pool);
		expect(await compareElsewhere(pool, other.courseId, load.id, back)).toBeNull();
	});
});
