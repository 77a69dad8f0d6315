import { createHash } from 'node:crypto';
import type { Pool, PoolConnection } from 'mysql2/promise';
import { checkBeside } from '$core/checks/one';
import { ContainerError } from '$core/container/container';
import { openContainer } from '$core/formats/open';
import { readPackage } from '$core/formats/package/read';
import { QuestionPlaces } from '$core/formats/question-places';
import { parseRecipe } from '$core/formats/recipe/recipe';
import type { OtherFile, ReadEvent } from '$core/formats/format';
import type { FoundPart, FoundQuiz } from '$core/model/quiz';
import { hashAttachments } from '$core/formats/hash';
import { pathKey } from '$core/take-in/paths';
import type { Report } from '$core/reports/report';
import { settings } from '../config';
import { row, rows, run, transaction } from '../db/pool';
import { chunkSize, fileSource, storeFile, storeSmall } from '../files/files';
import { codec } from '../files/codec';
import { Stopped, type Control } from '../jobs/control';
import { twinReport } from '../snags/twins';
import { compareLoad } from './against';
import { reviewSummary } from './summary';
import { columnsOf, reportColumns } from '../questions/columns';
import { insertStaged, type ReadQuestion } from '../questions/staged';

const batchSize = 400;
const progressEvery = 400;
const mostOthers = 2000;
/** How many bytes of small files may wait for the next batch. */
const mostWaiting = 4 << 20;

/**
 * Reads a load: every question is found, checked and staged; nothing goes into the course. A reading that broke off with
 * its process goes on behind the questions that were staged by then; the file is gone through again from its beginning,
 * since nothing but its reader knows where in it they stand. Throws Stopped when told to stop.
 */
export async function readLoad(pool: Pool, loadId: number, control: Control): Promise<void> {
	const load = await row<{
		course_id: number;
		file_id: number;
		size: number;
		file_name: string;
		recipe: string | null;
		state: string;
	}>(pool, 'SELECT course_id, file_id, size, file_name, recipe, state FROM loads WHERE id = ?', [loadId]);
	// a job that is done again, since its process went down right after the reading, must not undo what people decided
	if (!load || (load.state !== 'waiting' && load.state !== 'reading')) return;
	const goesOn = load.state === 'reading';
	if (goesOn) await clearFindings(pool, loadId);
	else await clear(pool, loadId);
	await run(
		pool,
		"UPDATE loads SET state = 'reading', bytes_read = 0, questions_found = 0, snags_found = 0, failure = '' WHERE id = ?",
		[loadId]
	);
	const reading = new Reading(pool, loadId, load.course_id, control);
	try {
		if (goesOn) await reading.goOn();
		const container = await openContainer(load.file_name, fileSource(pool, load.file_id, load.size), codec);
		const recipe = load.recipe ? parseRecipe(JSON.parse(load.recipe)) : undefined;
		for await (const event of readPackage(container, codec, 0, recipe, settings().questionLimit)) {
			control.check();
			await reading.take(event, container);
		}
		await reading.end(Array.from(container.files, ({ path }) => path));
	} catch (error) {
		await reading.quiet();
		if (error instanceof Stopped) await stopLoad(pool, loadId);
		else if (error instanceof ContainerError) {
			await clear(pool, loadId);
			await run(pool, "UPDATE loads SET state = 'failed', failure = ? WHERE id = ?", [
				error.message.slice(0, 1000),
				loadId
			]);
			return;
		}
		throw error;
	}
}

/** Leaves a load whose reading was stopped: nothing of it is staged, and it can be read again. */
export async function stopLoad(pool: Pool, loadId: number): Promise<void> {
	const { count } = await run(
		pool,
		"UPDATE loads SET state = 'stopped' WHERE id = ? AND state IN ('waiting', 'reading')",
		[loadId]
	);
	if (count) await clear(pool, loadId);
}

async function clear(pool: Pool, loadId: number): Promise<void> {
	await clearFindings(pool, loadId);
	await run(pool, 'DELETE FROM staged_reports WHERE load_id = ?', [loadId]);
	await run(pool, 'DELETE FROM staged_questions WHERE load_id = ?', [loadId]);
	await run(pool, 'DELETE FROM load_files WHERE load_id = ?', [loadId]);
}

/** Takes out what was found beside the questions, which is found again when a file is gone through again. */
async function clearFindings(pool: Pool, loadId: number): Promise<void> {
	await run(pool, 'DELETE FROM staged_reports WHERE load_id = ? AND staged_id IS NULL', [loadId]);
	await run(pool, 'DELETE FROM staged_quizzes WHERE load_id = ?', [loadId]);
	await run(pool, 'DELETE FROM staged_others WHERE load_id = ?', [loadId]);
}

class Reading {
	/** Small files that wait to be stored with the next batch, by their hash. */
	#waiting = new Map<string, Uint8Array>();
	#waitingBytes = 0;
	/** The keys of all files of the load, by their hash, and those that are not linked to it yet. */
	readonly #fileIds = new Map<string, number>();
	#unlinked: number[] = [];
	/** What the package calls a file, and how many questions use it, by its hash. */
	readonly #uses = new Map<string, { name: string; uses: number }>();
	#batch: ReadQuestion[] = [];
	#writing: Promise<void> = Promise.resolve();
	#number = 0;
	/** How many questions were staged before this process began. */
	#staged = 0;
	#snags = 0;
	#bytes = { read: 0, total: 0 };
	#told = 0;
	#format = '';
	/** Why the file cannot be read at all, where a reader says so. */
	#unreadable: string | null = null;
	#others = 0;
	#othersWaiting: [number, string, string][] = [];
	readonly #hashes = new Map<string, string | null>();
	/** The fingerprints of the questions that were met. */
	readonly #seen = new Set<string>();
	readonly #places = new QuestionPlaces();

	constructor(
		readonly pool: Pool,
		readonly loadId: number,
		readonly courseId: number,
		readonly control: Control
	) {}

	/** Takes over what another process has staged of the load: the first so many questions, whole. */
	async goOn(): Promise<void> {
		// by_number
		const staged = await rows<{ fingerprint: Buffer }>(
			this.pool,
			'SELECT fingerprint FROM staged_questions WHERE load_id = ? ORDER BY number',
			[this.loadId]
		);
		this.#staged = staged.length;
		for (const one of staged) this.#seen.add(one.fingerprint.toString('hex'));
		const files = await rows<{ id: number; hash: string }>(
			this.pool,
			'SELECT f.id, LOWER(HEX(f.hash)) AS hash FROM load_files u JOIN files f ON f.id = u.file_id WHERE u.load_id = ?',
			[this.loadId]
		);
		for (const { hash, id } of files) this.#fileIds.set(hash, id);
		const uses = await rows<{ name: string; hash: string }>(
			this.pool,
			`SELECT a.name, a.hash FROM staged_questions s JOIN JSON_TABLE(s.document, '$.attachments[*]' COLUMNS (name VARCHAR(1000) PATH '$.name', hash CHAR(64) PATH '$.hash')) a
			WHERE s.load_id = ? AND s.document LIKE '%"hash":"%' AND a.hash IS NOT NULL ORDER BY s.number`,
			[this.loadId]
		);
		for (const { hash, name } of uses) this.#used(hash, name);
		const said = await row<{ n: number }>(this.pool, 'SELECT COUNT(*) AS n FROM staged_reports WHERE load_id = ?', [
			this.loadId
		]);
		this.#snags = said!.n;
	}

	async take(event: ReadEvent, container: Parameters<typeof hashAttachments>[1]): Promise<void> {
		if (event.type === 'question' && this.#number < this.#staged) this.#number = this.#places.add(event.question);
		else if (event.type === 'question') {
			const { question, fragment, reports, categories } = event;
			await hashAttachments(question, container, (pieces) => this.#store(pieces), this.#hashes);
			for (const { name, hash } of question.attachments) if (hash) this.#used(hash, name);
			this.#batch.push({ question, fragment, reports, columns: columnsOf(question), categories: categories ?? {} });
			this.#number = this.#places.add(question);
			if (this.#batch.length >= batchSize || this.#waitingBytes > mostWaiting) await this.#flush();
		} else if (event.type === 'report') await this.#report(event.report, event.question);
		else if (event.type === 'quiz') await this.#quiz(event.quiz);
		else if (event.type === 'other') await this.#other(event.other);
		else if (event.type === 'format') this.#format = event.title;
		else if (event.type === 'title')
			await run(this.pool, 'UPDATE loads SET package_title = ? WHERE id = ?', [event.title.slice(0, 255), this.loadId]);
		else this.#bytes = { read: event.bytesRead, total: event.bytesTotal };
		await this.#tell(false);
	}

	#used(hash: string, name: string): void {
		const before = this.#uses.get(hash);
		if (before) before.uses += 1;
		else this.#uses.set(hash, { name: name.slice(0, 500), uses: 1 });
	}

	/** Gives the hash of a file; it is stored with the next batch where it is small, and at once where it is not. */
	async #store(pieces: AsyncIterable<Uint8Array>): Promise<string> {
		const held: Uint8Array[] = [];
		let length = 0;
		const rest = pieces[Symbol.asyncIterator]();
		let ended = false;
		while (!ended && length <= chunkSize) {
			const next = await rest.next();
			ended = next.done === true;
			if (next.done) break;
			held.push(next.value);
			length += next.value.length;
		}
		if (ended && length <= chunkSize) {
			const bytes = Buffer.concat(held);
			const hash = createHash('sha256').update(bytes).digest('hex');
			if (!this.#fileIds.has(hash) && !this.#waiting.has(hash)) {
				this.#waiting.set(hash, bytes);
				this.#waitingBytes += length;
			}
			return hash;
		}
		const file = await storeFile(
			this.pool,
			(async function* () {
				yield* held.splice(0);
				for (let next = await rest.next(); !next.done; next = await rest.next()) yield next.value;
			})()
		);
		this.#linked(file.hash, file.id);
		return file.hash;
	}

	#linked(hash: string, id: number): void {
		if (!this.#fileIds.has(hash)) this.#unlinked.push(id);
		this.#fileIds.set(hash, id);
	}

	async #tellUses(): Promise<void> {
		const found = [...this.#uses].flatMap(([hash, one]) => {
			const id = this.#fileIds.get(hash);
			return id === undefined ? [] : [{ ...one, id }];
		});
		for (let at = 0; at < found.length; at += batchSize)
			await run(
				this.pool,
				'INSERT INTO load_files (load_id, file_id, name, uses) VALUES ? ON DUPLICATE KEY UPDATE name = VALUES(name), uses = VALUES(uses)',
				[found.slice(at, at + batchSize).map((one) => [this.loadId, one.id, one.name, one.uses])]
			);
	}

	async #tell(now: boolean): Promise<void> {
		if (!now && Date.now() - this.#told < progressEvery) return;
		this.#told = Date.now();
		await run(
			this.pool,
			'UPDATE loads SET bytes_read = ?, bytes_total = ?, questions_found = ?, snags_found = ?, format = ? WHERE id = ?',
			[this.#bytes.read, this.#bytes.total, this.#number, this.#snags, this.#format, this.loadId]
		);
	}

	async #report(report: Report, question?: string): Promise<void> {
		this.#snags += 1;
		if (report.severity === 'broken') this.#unreadable ??= report.message;
		await run(
			this.pool,
			'INSERT INTO staged_reports (load_id, staged_id, rule, severity, message, words, place, line) VALUES ?',
			[[[this.loadId, null, ...reportColumns({ ...report, words: question ? [question] : (report.words ?? []) })]]]
		);
	}

	async #other({ path, type }: OtherFile): Promise<void> {
		if ((this.#others += 1) > mostOthers) return;
		this.#othersWaiting.push([this.loadId, path.slice(0, 1000), type.slice(0, 120)]);
		if (this.#othersWaiting.length >= batchSize) await this.#flushOthers();
	}

	async #flushOthers(): Promise<void> {
		if (this.#othersWaiting.length)
			await run(this.pool, 'INSERT INTO staged_others (load_id, path, type) VALUES ?', [this.#othersWaiting.splice(0)]);
	}

	/** Marks the questions of a part that stand in no bank, and in no category but that of the part itself. */
	async #markQuizOnly(part: FoundPart): Promise<void> {
		const numbers = this.#numbersOf(part.questions.filter((one) => !one.inBank));
		for (let at = 0; at < numbers.length; at += batchSize)
			// by_number
			await run(
				this.pool,
				"UPDATE staged_questions SET quiz_only = 1 WHERE load_id = ? AND number IN (?) AND category_path IN ('', ?) AND COALESCE(metadata_path, '') = ''",
				[this.loadId, numbers.slice(at, at + batchSize), pathKey(part.path).slice(0, 2000)]
			);
	}

	#numbersOf(questions: FoundPart['questions']): number[] {
		return questions.flatMap((one) => this.#places.find(one) ?? []);
	}

	async #quiz(quiz: FoundQuiz): Promise<void> {
		await this.#written();
		for (const part of quiz.parts) await this.#markQuizOnly(part);
		const parts = quiz.parts.map(({ title, draw, pointsEach, shuffle, questions }) => ({
			title,
			draw,
			pointsEach,
			shuffle,
			numbers: this.#numbersOf(questions)
		}));
		await run(this.pool, 'INSERT INTO staged_quizzes (load_id, title, document) VALUES (?, ?, ?)', [
			this.loadId,
			quiz.title.slice(0, 255),
			JSON.stringify(parts)
		]);
	}

	/** Hands a batch over to be written. One is written while the next is read; what goes wrong is heard at the next. */
	async #flush(): Promise<void> {
		const batch = this.#batch.splice(0);
		if (!batch.length) return;
		const first = this.#number - batch.length + 1;
		await this.#writing;
		const files = this.#waiting;
		this.#waiting = new Map();
		this.#waitingBytes = 0;
		this.#writing = this.#write(batch, first, files);
		this.#writing.catch(() => undefined);
	}

	/** Ends when everything that was handed over is written. */
	async #written(): Promise<void> {
		await this.#flush();
		await this.#writing;
	}

	/** Ends when nothing is being written any more, however that ended. */
	async quiet(): Promise<void> {
		await this.#writing.catch(() => undefined);
	}

	async #write(batch: ReadQuestion[], first: number, files: Map<string, Uint8Array>): Promise<void> {
		this.control.check();
		if (files.size) for (const [hash, id] of await storeSmall(this.pool, files)) this.#linked(hash, id);
		const fingerprints = batch.map((one) => one.columns.fingerprint);
		// by_fingerprint
		const known = await rows<{ fingerprint: Buffer }>(
			this.pool,
			'SELECT DISTINCT fingerprint FROM questions WHERE course_id = ? AND fingerprint IN (?)',
			[this.courseId, fingerprints]
		);
		const inCourse = new Set(known.map((one) => one.fingerprint.toString('hex')));
		const staged = batch.map((one) => {
			const key = one.columns.fingerprint.toString('hex');
			// where the other one is, is worked out when it is shown
			const twin = one.question.kind !== 'unreadable' && (inCourse.has(key) || this.#seen.has(key));
			this.#seen.add(key);
			const found = checkBeside(one.question, one.reports);
			return { ...one, reports: [...one.reports, ...found, ...(twin ? [twinReport(one.question)] : [])] };
		});
		await transaction(this.pool, async (connection) => {
			this.#snags += await insertStaged(connection, this.loadId, first, staged);
			await this.#linkFiles(connection);
		});
		await this.#tell(true);
	}

	async #linkFiles(connection: PoolConnection): Promise<void> {
		const ids = this.#unlinked.splice(0);
		if (ids.length)
			await run(connection, 'INSERT IGNORE INTO load_files (load_id, file_id) VALUES ?', [
				ids.map((id) => [this.loadId, id])
			]);
	}

	async end(paths: string[]): Promise<void> {
		await this.#written();
		await this.#flushOthers();
		await this.#tellUses();
		this.#bytes.read = this.#bytes.total;
		await this.#tell(true);
		if (this.#number) {
			await compareLoad(this.pool, this.loadId);
			await run(this.pool, "UPDATE loads SET state = 'review', review_version = review_version + 1 WHERE id = ?", [
				this.loadId
			]);
			// whoever opens it finds it counted
			await reviewSummary(this.pool, this.courseId, this.loadId);
			return;
		}
		const kinds = new Map<string, number>();
		for (const path of paths) {
			const ending = path.includes('.') ? path.split('.').pop()!.toLowerCase() : 'other';
			kinds.set(ending, (kinds.get(ending) ?? 0) + 1);
		}
		const holds = [...kinds]
			.sort((a, b) => b[1] - a[1])
			.slice(0, 5)
			.map(([ending, count]) => `${count} ${ending}`)
			.join(', ');
		await run(this.pool, "UPDATE loads SET state = 'failed', failure = ? WHERE id = ?", [
			(
				this.#unreadable ??
				`No questions were found in it. It holds ${paths.length === 1 ? `one file, “${paths[0]}”` : `${paths.length} files: ${holds}`}.`
			).slice(0, 1000),
			this.loadId
		]);
	}
}
