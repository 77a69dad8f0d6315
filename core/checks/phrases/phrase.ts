/** Any of some patterns as whole words, in any case: `\b` of regular expressions knows letters of English alone. */
export const phrase = (...alternatives: string[]): RegExp =>
	new RegExp(`(?<![\\p{L}\\p{N}])(?:${alternatives.join('|')})(?![\\p{L}\\p{N}])`, 'iu');

/** The same where a sentence, or what stands in brackets or behind a comma, begins with it: something that one is told to do. */
export const told = (...alternatives: string[]): RegExp =>
	new RegExp(
		`(?:^|[.?!:;,(\\[–—-]\\s*|(?<![\\p{L}\\p{N}])(?:please|now|bitte|veuillez|por favor|per favore|graag)\\s+)(?:${alternatives.join('|')})(?![\\p{L}\\p{N}-])`,
		'iu'
	);

/** A sentence or a part of one, whole. */
export const wholly = (...alternatives: string[]): RegExp => new RegExp(`^(?:${alternatives.join('|')})$`, 'iu');
