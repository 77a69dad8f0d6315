import { createToaster } from '@skeletonlabs/skeleton-svelte';

/**
 * What has just been done is told here, at the foot of the window; several at a time, one over the other. In its middle,
 * where lists are: what is pressed again and again stands at the sides.
 */
export const toaster = createToaster({
	placement: 'bottom',
	overlap: false,
	max: 4,
	offsets: { top: '20px', right: '20px', bottom: '76px', left: '20px' }
});

/** How long a toast stays, in milliseconds: longer where something can be done from it. */
const stays = { told: 6_000, withAction: 14_000 };

/** Tells what has been done, with a way back or on where there is one. */
export function tell(words: string, action?: { name: string; act: () => void }): void {
	toaster.create({
		title: words,
		duration: action ? stays.withAction : stays.told,
		...(action ? { action: { label: action.name, onClick: action.act } } : {})
	});
}
