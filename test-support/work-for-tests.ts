// Does work in a process of its own, so that a test can kill it: work-for-tests.ts (take|undo) COURSE LOAD PERSON takes a load
// in or back, (bulk|undo-deed) COURSE BANK|DEED PERSON changes all questions of a bank, or takes that back
import { plainRules } from '../core/take-in/decision';
import { makePool } from '../src/lib/server/db/pool';
import { takeIn } from '../src/lib/server/loads/take-in';
import { doBulk } from '../src/lib/server/changes/bulk';
import { undoDeed } from '../src/lib/server/changes/undo';
import { undo } from '../src/lib/server/loads/undo';

const [what, course, load, person] = process.argv.slice(2);
const pool = makePool(process.env.DATABASE_URL!, 2);
const [courseId, loadId, personId] = [Number(course), Number(load), Number(person)];
await pool.query('SELECT 1');
process.send!('begun');
if (what === 'undo') await undo(pool, courseId, loadId, personId);
else if (what === 'undo-deed') await undoDeed(pool, courseId, personId, loadId, false);
else if (what === 'bulk')
	await doBulk(pool, courseId, personId, {
		do: 'edit',
		chosen: { bankId: loadId, categoryId: null, withUnder: true, words: '', filters: {}, except: [], ids: undefined },
		what: { edit: 'points', points: 3 }
	} as never);
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
