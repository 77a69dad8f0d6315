import { checks } from '$core/checks';
import type { Severity } from '$core/reports/report';
import { courseSettings, plainSettings, severitiesOf, type CourseSettings } from '$lib/forms/course-settings';
import { row, type Database } from '../db/pool';

/** What a course keeps of its settings beside the rules of loads, which stand where loads look for them. */
export type Kept = Pick<CourseSettings, 'language' | 'points' | 'checksOff' | 'severities'>;

/** What a course keeps of its settings; as it comes where nobody has changed it. */
export async function keptOf(db: Database, courseId: number): Promise<Kept> {
	const found = await row<{ settings: string | null }>(db, 'SELECT settings FROM courses WHERE id = ?', [courseId]);
	const { language, points, checksOff, severities } = plainSettings;
	const plain = { language, points, checksOff, severities };
	if (!found?.settings) return plain;
	try {
		const kept = courseSettings.cast(JSON.parse(found.settings));
		return { language: kept.language, points: kept.points, checksOff: kept.checksOff, severities: kept.severities };
	} catch {
		// settings of an older make that no longer fit
		return plain;
	}
}

/** Which checks a course carries out, and how grave it takes them. */
export interface CheckRules {
	off: ReadonlySet<string>;
	/** Checks that are off elsewhere and on here. */
	on: ReadonlySet<string>;
	severities: ReadonlyMap<string, Severity>;
}

/** What checks have found as a course has it: without those that are off in it, and as grave as it takes them. */
export function byRules<Said extends { rule: string; severity: Severity }>(
	{ off, severities }: CheckRules,
	found: readonly Said[]
): Said[] {
	return found
		.filter(({ rule }) => !off.has(rule))
		.map((report) => ({ ...report, severity: severities.get(report.rule) ?? report.severity }));
}

/** Which checks a course carries out, and how grave it takes them. */
export async function checkRules(db: Database, courseId: number): Promise<CheckRules> {
	const kept = await keptOf(db, courseId);
	const off = new Set<string>(kept.checksOff);
	return {
		off,
		on: new Set(checks.filter(({ id, isOff }) => isOff && !off.has(id)).map(({ id }) => id)),
		severities: severitiesOf(kept)
	};
}
