// Takes a load in or back in a process of its own, so that a test can kill it: work-for-tests.ts (take|undo) COURSE LOAD PERSON
import { plainRules } from '../core/take-in/decision';
import { makePool } from '../src/lib/server/db/pool';
import { takeIn } from '../src/lib/server/loads/take-in';
import { undo } from '../src/lib/server/loads/undo';

const [what, course, load, person] = process.argv.slice(2);
const pool = makePool(process.env.DATABASE_URL!, 2);
const [courseId, loadId, personId] = [Number(course), Number(load), Number(person)];
await pool.query('SELECT 1');
process.send!('begun');
if (what === 'undo') await undo(pool, courseId, loadId, personId);
else
	await takeIn(pool, courseId, loadId, personId, {
		...plainRules,
		points: 2,
		bankId: null,
		bankName: 'Taken',
		quizBank: null,
		leftOut: [],
		landings: {}
	});
process.send!('done');
await pool.end();
