import { sketchOf } from '$core/formats/recipe/sketch';
import type { Pool } from 'mysql2/promise';
import { placeFindings } from '../checks/places';
import { lossesOf } from '../dispatches/losses';
import { compareAgain } from '../loads/against';
import { changesOf } from '../loads/changes';
import { editStaged, mendStaged } from '../loads/decide';
import { putInPlace } from '../loads/hand-in';
import type { Load } from '../loads/loads';
import { reviewSummary } from '../loads/summary';
import { openLoad, previewOf, recipeOf } from '../loads/recipes';
import { mend, mendableCount, mendPreview } from '../snags/mend';
import { takeAside } from '../loads/aside';
import { takeIn } from '../loads/take-in';

/**
 * What the pages have done in a thread of its own: whatever looks into questions or files, which may take long, or for
 * ever where somebody has made them so. A new one is a line here.
 */
export const tasks = {
	changesOf,
	compareAgain,
	editStaged,
	lossesOf,
	mend,
	mendPreview,
	mendStaged,
	mendableCount,
	placeFindings,
	previewOf,
	putInPlace,
	reviewSummary,
	takeAside,
	takeIn,
	/** What a recipe can point at in the file of a load, with the recipe that it has. */
	sketch: async (pool: Pool, load: Load) => sketchOf(await openLoad(pool, load), await recipeOf(pool, load.id))
};

/** The tasks by their names. */
export type Tasks = typeof tasks;
