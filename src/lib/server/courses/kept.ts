import { courseSettings, plainSettings, type CourseSettings } from '$lib/forms/course';
import { row, type Database } from '../db/pool';

/** What a course keeps of its settings beside the rules of loads, which stand where loads look for them. */
export type Kept = Pick<CourseSettings, 'language' | 'points' | 'checksOff'>;

/** What a course keeps of its settings; as it comes where nobody has changed it. */
export async function keptOf(db: Database, courseId: number): Promise<Kept> {
	const found = await row<{ settings: string | null }>(db, 'SELECT settings FROM courses WHERE id = ?', [courseId]);
	const { language, points, checksOff } = plainSettings;
	if (!found?.settings) return { language, points, checksOff };
	try {
		const kept = courseSettings.cast(JSON.parse(found.settings));
		return { language: kept.language, points: kept.points, checksOff: kept.checksOff };
	} catch {
		// settings of an older make that no longer fit
		return { language, points, checksOff };
	}
}

/** The checks that are off in a course, by their ids. */
export async function checksOff(db: Database, courseId: number): Promise<string[]> {
	return (await keptOf(db, courseId)).checksOff;
}
