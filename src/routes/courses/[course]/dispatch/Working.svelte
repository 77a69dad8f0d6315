<script lang="ts">
	import type { LossProgress } from '$lib/server/dispatches/losses';
	import Strand from '$lib/ui/Strand.svelte';
	import { figure } from '$lib/ui/words';
	import { onMount } from 'svelte';
	import { enhance, refreshEvery } from '$lib/ui/refresh';

	/** How far the working out of a loss table is; it begins by itself, and can be stopped. */
	let { working }: { working: LossProgress } = $props();

	let form: HTMLFormElement;
	let begun = $state(false);
	onMount(() => {
		if (working.stopped && !working.failure) form.requestSubmit();
		return refreshEvery(1000);
	});
</script>

<form
	method="POST"
	action="?/{working.stopped ? 'workOut' : 'stopWorking'}"
	bind:this={form}
	class="mt-2"
	use:enhance={() => {
		begun = true;
	}}
>
	<input type="hidden" name="table" value={working.id} />
	<div role="status">
		{#if working.failure}<p class="notice broken">{working.failure}</p>
		{:else if working.stopped && begun}<p class="mute">
				Many of the questions have not been held against this format yet.
			</p>
		{:else}<Strand value={working.total ? working.done / working.total : null} label="Progress" />
			<p class="mute">
				Working out what would be lost: {figure(working.done)} of {figure(working.total)}. It is kept, and quick the
				next time.
			</p>{/if}
	</div>
	<button class="btn btn-sm preset-outlined-brand mt-2">{working.stopped ? 'Work it out' : 'Stop'}</button>
</form>
