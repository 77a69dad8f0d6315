/**
 * Waits until something has come to pass; what fails meanwhile is not there yet. It may take its time on a machine that has
 * other things to do: what is not there after `wait` milliseconds does not come.
 */
export async function until(test: () => Promise<boolean>, wait = 150_000): Promise<void> {
	let failure: unknown = null;
	const hasCome = () =>
		test().catch((error: unknown) => {
			failure = error;
			return false;
		});
	for (const end = Date.now() + wait; Date.now() < end; await new Promise((resolve) => setTimeout(resolve, 50)))
		if (await hasCome()) return;
	throw new Error('it did not come to pass', { cause: failure });
}
