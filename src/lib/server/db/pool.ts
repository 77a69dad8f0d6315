import {
	createPool,
	type Connection,
	type Pool,
	type PoolConnection,
	type ResultSetHeader,
	type RowDataPacket
} from 'mysql2/promise';
import { settings } from '../config';

/** Something that takes statements: the pool, or one connection, in a transaction or not. */
export type Database = Pool | Connection;

/** Makes a pool of connections to a MariaDB; `url` is as DATABASE_URL is. */
export function makePool(url: string, connections: number): Pool {
	return createPool({
		uri: url.replace(/^mariadb:/, 'mysql:'),
		connectionLimit: connections,
		charset: 'utf8mb4',
		timezone: 'Z',
		supportBigNumbers: true,
		maxPreparedStatements: 0
	} as never);
}

let shared: Pool | undefined;

/** The pool of this process. */
export function database(): Pool {
	return (shared ??= makePool(settings().databaseUrl, settings().databaseConnections));
}

/** The rows of a query, typed by the caller, who wrote the columns. Parameters stand for the question marks. */
export async function rows<Row>(db: Database, sql: string, parameters: unknown[] = []): Promise<Row[]> {
	const [found] = await db.query<RowDataPacket[]>(sql, parameters);
	return found as Row[];
}

/** The first row of a query, or undefined. */
export async function row<Row>(db: Database, sql: string, parameters: unknown[] = []): Promise<Row | undefined> {
	return (await rows<Row>(db, sql, parameters))[0];
}

const retried = new Set(['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT', 'ER_CHECKREAD']);
const tries = 12;

/** Does work again where others were in its way, which undid all of it; a little later each time. */
async function again<T>(work: () => Promise<T>): Promise<T> {
	for (let attempt = 1; ; attempt += 1)
		try {
			return await work();
		} catch (error) {
			if (attempt >= tries || !retried.has((error as { code?: string }).code ?? '')) throw error;
			await new Promise((resolve) => setTimeout(resolve, 20 * attempt + Math.random() * 60 * attempt));
		}
}

/**
 * Runs a statement that changes something; gives the new key and how many rows it touched. One that stands alone, outside
 * of a transaction, is tried again after a deadlock.
 */
export async function run(
	db: Database,
	sql: string,
	parameters: unknown[] = []
): Promise<{ id: number; count: number }> {
	const once = () => db.query<ResultSetHeader>(sql, parameters);
	const [result] = await ('getConnection' in db ? again(once) : once());
	return { id: result.insertId, count: result.affectedRows };
}

/** How much a transaction sees of others: all that they have ended, or one moment for as long as it lasts. */
type Isolation = 'READ COMMITTED' | 'REPEATABLE READ';

/**
 * Runs work in one transaction: all of it or nothing. A deadlock is tried again from the start. READ COMMITTED locks no
 * gaps, so that many who add rows beside one another do not wait for each other.
 */
export async function transaction<T>(
	pool: Pool,
	work: (connection: PoolConnection) => Promise<T>,
	isolation: Isolation = 'REPEATABLE READ'
): Promise<T> {
	return again(async () => {
		const connection = await pool.getConnection();
		try {
			if (isolation === 'READ COMMITTED') await connection.query('SET TRANSACTION ISOLATION LEVEL READ COMMITTED');
			await connection.beginTransaction();
			const result = await work(connection);
			await connection.commit();
			return result;
		} catch (error) {
			await connection.rollback().catch(() => undefined);
			throw error;
		} finally {
			connection.release();
		}
	});
}

const unreachable = new Set([
	'ECONNREFUSED',
	'ECONNRESET',
	'EPIPE',
	'ETIMEDOUT',
	'PROTOCOL_CONNECTION_LOST',
	'ER_SERVER_SHUTDOWN',
	'ER_CONNECTION_KILLED',
	'ER_CON_COUNT_ERROR'
]);

/** Whether an error says that the database cannot be reached, as while it is being started again. */
export function isUnreachable(error: unknown): boolean {
	return unreachable.has((error as { code?: string } | null)?.code ?? '');
}
