// Starts a database in a folder and stays, so that a test can kill its owner: database-for-tests.ts FOLDER
import { startMariadb } from '../scripts/database/mariadb';

const database = await startMariadb(process.argv[2]!, { quick: true });
process.send!(database.url);
setInterval(() => undefined, 1000);
