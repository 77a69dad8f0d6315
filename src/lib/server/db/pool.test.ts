import { afterAll, beforeAll, expect, it } from 'vitest';
import { testPool } from '../test-support/world';
import { row, run } from './pool';

const pool = testPool();
beforeAll(async () => {
	await run(pool, 'CREATE TABLE moorings (id INT PRIMARY KEY, boats INT NOT NULL)');
	await run(pool, 'INSERT INTO moorings SELECT seq, 0 FROM seq_1_to_50');
});
afterAll(async () => {
	await run(pool, 'DROP TABLE moorings');
	await pool.end();
});

it('a statement that stands alone is done again where it lost a deadlock', async () => {
	const other = await pool.getConnection();
	await other.beginTransaction();
	// the more has been changed, the later is it undone: this one wins
	await run(other, 'UPDATE moorings SET boats = boats + 1 WHERE id > 1');
	const alone = run(pool, 'UPDATE moorings SET boats = boats + 10 WHERE id IN (1, 2) ORDER BY id');
	await new Promise((resolve) => setTimeout(resolve, 300));
	await run(other, 'UPDATE moorings SET boats = boats + 1 WHERE id = 1');
	await other.commit();
	other.release();
	expect((await alone).count).toBe(2);
	expect(await row(pool, 'SELECT CAST(SUM(boats) AS SIGNED) AS boats FROM moorings WHERE id < 3')).toMatchObject({
		boats: 22
	});
});
