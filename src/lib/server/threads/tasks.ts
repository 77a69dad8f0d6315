import { carryCategories, carryPreview } from '../banks/carry';
import {
	dropCategory,
	makeCategory,
	mergeCategory,
	moveCategory,
	numberCategories,
	renameCategory,
	sortCategories
} from '../banks/categories';
import { copyBank, splitBank } from '../banks/apart';
import { binBank, makeBank, mergeBanks, moveBank, renameBank } from '../banks/change';
import { mendPlaces } from '../banks/mend-places';
import { splitCategory } from '../banks/split';
import { doBulk, previewBulk } from '../changes/bulk';
import { emptyBin, putBackFromBin, putBankBack } from '../changes/in-bin';
import { undoDeed } from '../changes/undo';
import { copyCourse } from '../courses/copy';
import { bringBackVersion, editQuestion, makeQuestion } from '../questions/edit';
import { gatherQuestions } from '../quizzes/gather';
import { lookIntoSheet } from '../quizzes/look';
import { makeForms } from '../quizzes/forms';
import { markForms, writeDifficulties } from '../quizzes/marks';
import { sittingsOf } from '../quizzes/sittings';
import { formsInWord } from '../quizzes/word';
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
import { keepOneOfEach } from '../snags/keep-one';
import { mend, mendableCount, mendPreview } from '../snags/mend';
import { leaveOut, setAsideAgain, takeAside } from '../loads/aside';
import { takeIn } from '../loads/take-in';

/**
 * What the pages have done in a thread of its own: whatever looks into questions or files, which may take long, or for
 * ever where somebody has made them so. A new one is a line here.
 */
export const tasks = {
	binBank,
	bringBackVersion,
	carryCategories,
	carryPreview,
	changesOf,
	compareAgain,
	copyCourse,
	doBulk,
	dropCategory,
	editQuestion,
	emptyBin,
	editStaged,
	formsInWord,
	gatherQuestions,
	lookIntoSheet,
	lossesOf,
	makeForms,
	markForms,
	makeBank,
	makeCategory,
	makeQuestion,
	keepOneOfEach,
	leaveOut,
	mend,
	mendPlaces,
	mendPreview,
	mendStaged,
	mendableCount,
	mergeBanks,
	copyBank,
	splitBank,
	mergeCategory,
	moveBank,
	moveCategory,
	numberCategories,
	placeFindings,
	previewBulk,
	previewOf,
	putBackFromBin,
	putBankBack,
	putInPlace,
	renameBank,
	renameCategory,
	reviewSummary,
	setAsideAgain,
	sittingsOf,
	sortCategories,
	splitCategory,
	takeAside,
	takeIn,
	writeDifficulties,
	undoDeed,
	/** What a recipe can point at in the file of a load, with the recipe that it has. */
	sketch: async (pool: Pool, load: Load) => sketchOf(await openLoad(pool, load), await recipeOf(pool, load.id))
};

/** The tasks by their names. */
export type Tasks = typeof tasks;
