/**
 * Makes of a question that may be asked again before it is answered one of which only the last answer counts: an earlier
 * one that comes too late gives null.
 */
export function latest<Given extends unknown[], Answer>(
	ask: (...given: Given) => Promise<Answer>
): (...given: Given) => Promise<Answer | null> {
	let asked = 0;
	return async (...given) => {
		asked += 1;
		const mine = asked;
		const answer = await ask(...given);
		return mine === asked ? answer : null;
	};
}
