import { readFile as readText } from 'node:fs/promises';
import { ContainerError } from '../core/container/container';
import { parseRecipe, type Recipe } from '../core/formats/recipe/recipe';

/** What may be said beside the files. */
export interface Options {
	plain?: boolean;
	json?: boolean;
	to?: string;
	mapping?: string;
	/** The checks that are run, with commas between; all where nothing is said. */
	only?: string;
	/** The checks whose mends are made, with commas between; what comes of it is written to a second file. */
	mend?: string;
	/** From what sittings are drawn, and how many. */
	seed?: string;
	count?: string;
	/** The quiz of a package that is meant, by its title. */
	quiz?: string;
	/** For paper: the keys instead of the questions, and the size of a sheet. */
	keys?: boolean;
	paper?: string;
	/** How many questions stand in for a calculated one. */
	'worked-out'?: string;
}

/** A command: how many files it wants, and what it does. It gives the exit code. */
export interface Command {
	files: number | ((options: Options) => number);
	run: (files: string[], options: Options) => Promise<number>;
}

/** Prints a line. */
export const say = (line: string) => process.stdout.write(`${line}\n`);

/** The recipe in the file that `--mapping` names. Throws a ContainerError that says what is wrong with it. */
export async function recipeOf({ mapping }: Options): Promise<Recipe | undefined> {
	if (mapping === undefined) return undefined;
	try {
		return parseRecipe(JSON.parse(await readText(mapping, 'utf8')));
	} catch (error) {
		if ((error as NodeJS.ErrnoException).code) throw error;
		throw new ContainerError('bad-recipe', `The recipe “${mapping}” cannot be used: ${(error as Error).message}.`);
	}
}
