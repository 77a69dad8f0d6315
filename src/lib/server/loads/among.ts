import type { Pool } from 'mysql2/promise';
import { exactDuplicate } from '$core/checks/exact-duplicate';
import { manyChecks, pairChecks } from '$core/checks';
import type { CheckedCategory } from '$core/checks/check';
import { Gathering } from '$core/checks/many';
import { findInTree } from '$core/checks/places';
import type { Question } from '$core/kinds';
import { languagesOf } from '$core/language/detect';
import type { Report } from '$core/reports/report';
import { ruleOf } from '$core/reports/rules';
import type { CheckRules } from '../courses/kept';
import { rows, run, transaction } from '../db/pool';
import { writeReports } from '../questions/staged';

const batch = 1000;
const amongMany = [...manyChecks, ...pairChecks].map(({ id }) => id).filter((id) => id !== exactDuplicate.id);

/** The checks that look at more than one question, over all that a load holds: they speak once everything is read. */
export class LoadChecks {
	readonly #gathering: Gathering;
	readonly #places = new Map<number, { file: string; line: number }>();
	readonly #categories = new Map<string, CheckedCategory>();

	constructor(readonly rules: CheckRules) {
		// of what is there twice something is said as it is read
		const checks = [...manyChecks, ...pairChecks].filter(({ id }) => id !== exactDuplicate.id && !rules.off.has(id));
		this.#gathering = new Gathering({ languagesOf }, checks);
	}

	/** Adds a question by its number in the load. */
	add(number: number, question: Question): void {
		this.#gathering.add(number, question, { bank: '', category: question.category });
		if (question.source) this.#places.set(number, { file: question.source.file, line: question.source.line });
		this.#count(question.category, 1);
	}

	/** Adds a category that the file lists, whether anything stands in it or not. */
	category(path: readonly string[]): void {
		this.#count(path, 0);
	}

	#count(category: readonly string[], questions: number): void {
		for (let depth = 1; depth <= category.length; depth += 1) {
			const path = category.slice(0, depth);
			const key = JSON.stringify(path);
			const known = this.#categories.get(key);
			if (known) known.questions += questions;
			else this.#categories.set(key, { path, questions });
		}
	}

	/** What is found among the questions, by their numbers, as the course has it. */
	*#among(): Generator<{ number: number; report: Report }> {
		for (const { check, id, message, words } of this.#gathering.findings()) {
			const place = this.#places.get(id);
			const severity = this.rules.severities.get(check.id) ?? check.severity;
			const report = { rule: ruleOf(check), severity, message, ...(words ? { words } : {}) };
			yield { number: id, report: place ? { ...report, place } : report };
		}
	}

	/** What is wrong with the categories of the file. */
	ofFile(): Report[] {
		return [...findInTree([...this.#categories.values()])]
			.filter(({ check }) => !this.rules.off.has(check.id))
			.map(({ check, message, words }) => ({
				rule: ruleOf(check),
				severity: this.rules.severities.get(check.id) ?? check.severity,
				message,
				...(words ? { words } : {})
			}));
	}

	/** Writes what is found to the questions of a load; gives how much it is. */
	async write(pool: Pool, loadId: number): Promise<number> {
		// a reading that is gone on with finds it once more
		await run(pool, 'DELETE FROM staged_reports WHERE load_id = ? AND rule IN (?)', [loadId, amongMany]);
		let written = 0;
		let some: { number: number; report: Report }[] = [];
		const flush = async () => {
			if (some.length) written += await writeAmong(pool, loadId, some);
			some = [];
		};
		for (const found of this.#among()) if (some.push(found) >= batch) await flush();
		await flush();
		return written;
	}
}

async function writeAmong(
	pool: Pool,
	loadId: number,
	found: readonly { number: number; report: Report }[]
): Promise<number> {
	// by_number
	const staged = await rows<{ id: number; number: number }>(
		pool,
		'SELECT id, number FROM staged_questions WHERE load_id = ? AND number IN (?)',
		[loadId, [...new Set(found.map(({ number }) => number))]]
	);
	const ids = new Map(staged.map(({ id, number }) => [number, id]));
	const reports = found.flatMap(({ number, report }) => {
		const stagedId = ids.get(number);
		return stagedId === undefined ? [] : [{ stagedId, report }];
	});
	const broken = reports.flatMap(({ stagedId, report }) => (report.severity === 'broken' ? [stagedId] : []));
	await transaction(pool, async (connection) => {
		await writeReports(connection, loadId, reports);
		if (broken.length) await run(connection, 'UPDATE staged_questions SET broken = 1 WHERE id IN (?)', [broken]);
	});
	return reports.length;
}
