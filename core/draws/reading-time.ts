/** Words that are read in a minute, silently and with care (a usual value for texts that are to be understood). */
export const wordsInMinute = 200;

/**
 * How often a word of a question stands in it on average: of each only its different words are counted. The test
 * measures it.
 */
export const timesEach = 1.2;

/** How long a question takes to read, in seconds, by how many different words it has. */
export const secondsToRead = (differentWords: number): number =>
	Math.round(((differentWords * timesEach) / wordsInMinute) * 60);
