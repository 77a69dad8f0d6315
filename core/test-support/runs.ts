/**
 * How often a property is tried, and from which seed. `NAME_RUNS` in the environment makes it long, `NAME_SEED` starts
 * it elsewhere.
 */
export function runsOf(name: string, numRuns: number): { numRuns: number; seed: number } {
	return {
		numRuns: Number(process.env[`${name}_RUNS`] ?? numRuns),
		seed: Number(process.env[`${name}_SEED`] ?? 20_261_128)
	};
}
