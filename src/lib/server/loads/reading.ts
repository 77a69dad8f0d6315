import type { Pool } from 'mysql2/promise';
import { checkBeside } from '$core/checks/one';
import { QuestionPlaces } from '$core/formats/question-places';
import type { OtherFile, ReadEvent } from '$core/formats/format';
import type { FoundPart, FoundQuestion, FoundQuiz } from '$core/model/quiz';
import { renamedPart, renamedRules } from '$core/model/sheet';
import type { StagedSheet } from './found-quizzes';
import { hashAttachments, type KnownFiles } from '$core/formats/hash';
import { pathKey } from '$core/take-in/paths';
import type { Report } from '$core/reports/report';
import { byRules, type CheckRules } from '../courses/kept';
import { row, rows, run, transaction } from '../db/pool';
import type { Control } from '../jobs/control';
import { twinReport } from '../snags/twins';
import { compareLoad } from './against';
import { LoadChecks } from './among';
import { LoadFiles } from './load-files';
import { reviewSummary } from './summary';
import { columnsOf, reportColumns } from '../questions/columns';
import { insertStaged, type ReadQuestion } from '../questions/staged';

const batchSize = 400;
const progressEvery = 400;
const mostOthers = 2000;
/** So many categories that a file lists are kept, and none whose path is longer than a column. */
const mostListed = 20_000;
const longestPath = 2000;
/** How many bytes of small files may wait for the next batch. */
const mostWaiting = 4 << 20;

/** One reading of a load: what a reader gives is checked and staged in batches, one being written while the next is read. */
export class Reading {
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
	/** The categories that the file lists, as `pathKey` gives them. */
	readonly #categories = new Set<string>();
	#othersWaiting: [number, string, string][] = [];
	readonly #hashes = new Map() as KnownFiles;
	/** The fingerprints of the questions that were met. */
	readonly #seen = new Set<string>();
	readonly #places = new QuestionPlaces();
	readonly #files: LoadFiles;
	/** What looks at more than one question. */
	readonly #checks: LoadChecks;

	constructor(
		readonly pool: Pool,
		readonly loadId: number,
		readonly courseId: number,
		readonly control: Control,
		rules: CheckRules
	) {
		this.#checks = new LoadChecks(rules);
		this.#files = new LoadFiles(pool, loadId);
	}

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
		await this.#files.goOn();
		const said = await row<{ n: number }>(this.pool, 'SELECT COUNT(*) AS n FROM staged_reports WHERE load_id = ?', [
			this.loadId
		]);
		this.#snags = said!.n;
	}

	/** Takes what a reader has found; container is what it reads from. */
	async take(event: ReadEvent, container: Parameters<typeof hashAttachments>[1]): Promise<void> {
		if (event.type === 'question') this.#checks.add(this.#number + 1, event.question);
		if (event.type === 'question' && this.#number < this.#staged) this.#number = this.#places.add(event.question);
		else if (event.type === 'question') {
			const { question, fragment, reports, categories } = event;
			await hashAttachments(question, container, (pieces) => this.#files.store(pieces), this.#hashes);
			for (const { name, hash } of question.attachments) if (hash) this.#files.used(hash, name);
			this.#batch.push({ question, fragment, reports, columns: columnsOf(question), categories: categories ?? {} });
			this.#number = this.#places.add(question);
			if (this.#batch.length >= batchSize || this.#files.waitingBytes > mostWaiting) await this.#flush();
		} else if (event.type === 'report') await this.#report(event.report, event.question);
		else if (event.type === 'quiz') await this.#quiz(event.quiz);
		else if (event.type === 'other') await this.#other(event.other);
		else if (event.type === 'category') this.#category(event.path);
		else if (event.type === 'format') this.#format = event.title;
		else if (event.type === 'title')
			await run(this.pool, 'UPDATE loads SET package_title = ? WHERE id = ?', [event.title.slice(0, 255), this.loadId]);
		else this.#bytes = { read: event.bytesRead, total: event.bytesTotal };
		await this.#tell(false);
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

	#category(path: string[]): void {
		this.#checks.category(path);
		const key = pathKey(path);
		if (this.#categories.size < mostListed && key.length <= longestPath) this.#categories.add(key);
	}

	async #flushOthers(): Promise<void> {
		if (this.#othersWaiting.length)
			await run(this.pool, 'INSERT INTO staged_others (load_id, path, type) VALUES ?', [this.#othersWaiting.splice(0)]);
	}

	/** Marks the questions of a part that stand in no bank, and in no category but that of the part itself. */
	async #markQuizOnly(part: FoundPart): Promise<void> {
		const own = part.questions.filter((question) => !question.inBank);
		const paths = [...new Set([part.path, ...own.flatMap(({ path }) => (path ? [path] : []))].map(pathKey))];
		const numbers = this.#numbersOf(own);
		for (let at = 0; at < numbers.length; at += batchSize)
			// by_number
			await run(
				this.pool,
				"UPDATE staged_questions SET quiz_only = 1 WHERE load_id = ? AND number IN (?) AND category_path IN ('', ?) AND COALESCE(metadata_path, '') = ''",
				[this.loadId, numbers.slice(at, at + batchSize), paths.map((path) => path.slice(0, 2000))]
			);
	}

	#numbersOf(questions: FoundPart['questions']): number[] {
		return questions.flatMap((one) => this.#places.find(one) ?? []);
	}

	async #quiz(quiz: FoundQuiz): Promise<void> {
		await this.#written();
		for (const part of quiz.parts) await this.#markQuizOnly(part);
		const numberOf = (named: FoundQuestion) => this.#places.find(named);
		const document: StagedSheet = {
			settings: quiz.settings ?? {},
			rules: quiz.rules ? renamedRules(quiz.rules, numberOf) : null,
			parts: quiz.parts.map(({ title, draw, pointsEach, shuffle, questions, sheet }) => ({
				title,
				draw,
				pointsEach,
				shuffle,
				numbers: this.#numbersOf(questions),
				sheet: sheet ? renamedPart(sheet, numberOf) : null
			}))
		};
		await run(this.pool, 'INSERT INTO staged_quizzes (load_id, title, document) VALUES (?, ?, ?)', [
			this.loadId,
			quiz.title.slice(0, 255),
			JSON.stringify(document)
		]);
	}

	/** Hands a batch over to be written. One is written while the next is read; what goes wrong is heard at the next. */
	async #flush(): Promise<void> {
		const batch = this.#batch.splice(0);
		if (!batch.length) return;
		const first = this.#number - batch.length + 1;
		await this.#writing;
		const files = this.#files.takeWaiting();
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
		await this.#files.storeWaiting(files);
		const fingerprints = batch.map((one) => one.columns.fingerprint);
		// by_fingerprint
		const known = await rows<{ fingerprint: Buffer }>(
			this.pool,
			'SELECT DISTINCT fingerprint FROM questions WHERE course_id = ? AND fingerprint IN (?)',
			[this.courseId, fingerprints]
		);
		const inCourse = new Set(known.map((one) => one.fingerprint.toString('hex')));
		const staged = batch.map((read) => {
			const key = read.columns.fingerprint.toString('hex');
			// where the other one is, is worked out when it is shown
			const twin = read.question.kind !== 'unreadable' && (inCourse.has(key) || this.#seen.has(key));
			this.#seen.add(key);
			const found = checkBeside(read.question, read.reports, { on: this.#checks.rules.on });
			if (twin) found.push(twinReport(read.question));
			return { ...read, reports: [...read.reports, ...byRules(this.#checks.rules, found)] };
		});
		await transaction(this.pool, async (connection) => {
			this.#snags += await insertStaged(connection, this.loadId, first, staged);
			await this.#files.link(connection);
		});
		await this.#tell(true);
	}

	/** Writes what is left, holds the load against its course, and opens it for review; paths are the files of the package. */
	async end(paths: string[]): Promise<void> {
		await this.#written();
		await this.#flushOthers();
		await this.#files.keepUses();
		for (const report of this.#checks.ofFile()) await this.#report(report);
		this.#snags += await this.#checks.write(this.pool, this.loadId);
		await run(this.pool, 'UPDATE loads SET categories = ? WHERE id = ?', [
			this.#categories.size ? JSON.stringify([...this.#categories]) : null,
			this.loadId
		]);
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
		await run(this.pool, "UPDATE loads SET state = 'failed', failure = ? WHERE id = ?", [
			(this.#unreadable ?? noQuestionsIn(paths)).slice(0, 1000),
			this.loadId
		]);
	}
}

/** Says what a package holds in which no question was found. */
function noQuestionsIn(paths: readonly string[]): string {
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
	return `No questions were found in it. It holds ${paths.length === 1 ? `one file, “${paths[0]}”` : `${paths.length} files: ${holds}`}.`;
}
