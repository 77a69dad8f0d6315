import type { PoolConnection } from 'mysql2/promise';
import { keepLongWords } from './long-words';
import { keepTags, type Which } from './tags';

/** Notes beside questions by what they are found: their tags, and their words where these are many. */
export async function keepFound(connection: PoolConnection, which: Which): Promise<void> {
	await keepTags(connection, which);
	await keepLongWords(connection, which);
}
