import { enhance as enhanced } from '$app/forms';
import { invalidate, invalidateAll } from '$app/navigation';
import { navigating } from '$app/state';
import type { SubmitFunction } from '@sveltejs/kit';

/** Waits until the page that is being gone to is there. The framework gives up going to a page when what is shown is loaded anew. */
async function arrived(): Promise<void> {
	let going: Promise<void> | null = null;
	while (navigating.complete && navigating.complete !== going) {
		going = navigating.complete;
		// one that is given up for another is no fault
		await going.catch(() => undefined);
	}
}

/** Loads anew what the page shows, or what of it goes by a name; a link that was pressed before is followed first. */
export async function refresh(name?: string): Promise<void> {
	await arrived();
	await (name === undefined ? invalidateAll() : invalidate(name));
}

/** Loads anew what the page shows, so many milliseconds after it was loaded last; gives what ends it. */
export function refreshEvery(milliseconds: number): () => void {
	let timer: ReturnType<typeof setTimeout>;
	let hasEnded = false;
	const wait = () => {
		timer = setTimeout(() => {
			void arrived()
				.then(() => (hasEnded ? undefined : invalidateAll()))
				.finally(() => {
					if (!hasEnded) wait();
				});
		}, milliseconds);
	};
	wait();
	return () => {
		hasEnded = true;
		clearTimeout(timer);
	};
}

/** Sends a form without leaving the page, as the framework does; a link that was pressed in the meantime is followed all the same. */
export function enhance(form: HTMLFormElement, submit?: SubmitFunction): ReturnType<typeof enhanced> {
	return enhanced(form, async (input) => {
		const answered = await submit?.(input);
		return async (outcome) => {
			await arrived();
			await (answered ? answered(outcome) : outcome.update());
		};
	});
}
