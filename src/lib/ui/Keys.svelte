<script lang="ts">
	import { Dialog, Portal } from '@skeletonlabs/skeleton-svelte';
	import X from '@lucide/svelte/icons/x';
	import { shortcuts } from './keys';
	import { overSheets } from './over-sheets';

	/** The sheet of the keys, opened with a question mark. */
	let shown = $state(false);
	/** Opens the sheet. */
	export function open() {
		shown = true;
	}
</script>

<Dialog open={shown} persistentElements={overSheets} onOpenChange={(details) => (shown = details.open)}>
	<Portal>
		<Dialog.Backdrop class="dialog-backdrop" />
		<Dialog.Positioner class="dialog-place">
			<Dialog.Content class="dialog">
				{#if shown}
					<div class="flex justify-between mb-2">
						<Dialog.Title><h2>Keys</h2></Dialog.Title>
						<Dialog.CloseTrigger aria-label="Close" class="cursor-pointer"><X size={18} /></Dialog.CloseTrigger>
					</div>
					<table class="table">
						<tbody>
							{#each shortcuts as { keys, does, scope } (`${scope} ${keys}`)}<tr
									><td class="whitespace-nowrap"><kbd>{keys}</kbd></td><td>{does}</td><td class="mute"
										>{scope === 'everywhere' ? '' : scope}</td
									></tr
								>{/each}
						</tbody>
					</table>
				{/if}
			</Dialog.Content>
		</Dialog.Positioner>
	</Portal>
</Dialog>
