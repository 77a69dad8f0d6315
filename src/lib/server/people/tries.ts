import { createHash } from 'node:crypto';
import type { Pool } from 'mysql2/promise';
import { rows, run, transaction } from '../db/pool';

/** How many wrong tries are free of a wait, and for how many hours they count. */
interface Bound {
	counted: string;
	free: number;
	hours: number;
}

const longestWait = 15 * 60;

/** What a try counts for: the person who is meant from one address, all from one address, and all for that person. */
function boundsOf(email: string, address: string): Bound[] {
	return [
		{ counted: `both ${address} ${email}`, free: 3, hours: 24 },
		{ counted: `address ${address}`, free: 30, hours: 1 },
		{ counted: `person ${email}`, free: 30, hours: 24 }
	];
}

const keyOf = ({ counted }: Bound) => createHash('sha256').update(counted).digest();

/**
 * Counts a try to sign in as wrong before anybody looks whether it is right, so that many at once are many tries. Gives
 * the seconds to wait where it is one too many: it then does not count, and nobody may look. Each wrong one more than
 * are free makes the next wait twice as long, up to a quarter of an hour. Whether there is such a person makes no difference.
 */
export async function countTry(pool: Pool, email: string, address: string): Promise<number> {
	const bounds = boundsOf(email, address);
	return transaction(pool, async (connection) => {
		await run(connection, 'INSERT IGNORE INTO sign_in_tries (counted_by) VALUES ?', [
			bounds.map((one) => [keyOf(one)])
		]);
		const found = await rows<{ counted_by: Buffer; wrong: number; wait: number | null; hours: number }>(
			connection,
			'SELECT counted_by, wrong, TIMESTAMPDIFF(MICROSECOND, NOW(3), wait_until) / 1000000 AS wait, TIMESTAMPDIFF(MINUTE, last, NOW(3)) / 60 AS hours FROM sign_in_tries WHERE counted_by IN (?) ORDER BY counted_by FOR UPDATE',
			[bounds.map(keyOf)]
		);
		const wait = Math.max(0, ...found.map((one) => Number(one.wait ?? 0)));
		if (wait > 0) return Math.ceil(wait);
		const counted = bounds.map((bound) => {
			const known = found.find((one) => one.counted_by.equals(keyOf(bound)));
			const wrong = (known && Number(known.hours) < bound.hours ? known.wrong : 0) + 1;
			return [
				keyOf(bound),
				wrong,
				wrong <= bound.free ? 0 : Math.min(longestWait, 2 ** Math.min(20, wrong - bound.free))
			];
		});
		for (const [key, wrong, seconds] of counted)
			await run(
				connection,
				'UPDATE sign_in_tries SET wrong = ?, last = NOW(3), wait_until = IF(? = 0, NULL, DATE_ADD(NOW(3), INTERVAL ? SECOND)) WHERE counted_by = ?',
				[wrong, seconds, seconds, key]
			);
		return 0;
	});
}

/** Takes back a try that was right: it was none of the wrong ones, and those of this person from this address are forgiven. */
export async function forgive(pool: Pool, email: string, address: string): Promise<void> {
	const [both, ...others] = boundsOf(email, address).map(keyOf);
	await run(pool, 'DELETE FROM sign_in_tries WHERE counted_by = ?', [both]);
	await run(
		pool,
		'UPDATE sign_in_tries SET wrong = GREATEST(1, wrong) - 1, wait_until = NULL WHERE counted_by IN (?)',
		[others]
	);
	// by_last
	await run(pool, 'DELETE FROM sign_in_tries WHERE last < DATE_SUB(NOW(3), INTERVAL 2 DAY)');
}
