<script lang="ts">
	import { Toast } from '@skeletonlabs/skeleton-svelte';
	import X from '@lucide/svelte/icons/x';
	import { toaster } from './toasts';
	import UnderWayBar from './UnderWayBar.svelte';

	/** What was done, with the way back, and what is under way: usable over a sheet too (`overSheets`). */
</script>

<div data-told>
	<Toast.Group {toaster}>
		{#snippet children(toast)}
			<Toast {toast} class="toast">
				<Toast.Message><Toast.Title>{toast.title}</Toast.Title></Toast.Message>
				{#if toast.action}<Toast.ActionTrigger class="btn btn-sm preset-outlined-brand"
						>{toast.action.label}</Toast.ActionTrigger
					>{/if}
				<Toast.CloseTrigger class="toast-close" aria-label="Close"><X size={15} /></Toast.CloseTrigger>
			</Toast>
		{/snippet}
	</Toast.Group>
	<UnderWayBar />
</div>
