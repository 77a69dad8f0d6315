<script lang="ts">
	import type { Checking } from '$lib/server/checks/course';
	import Strand from '$lib/ui/Strand.svelte';
	import { figure } from '$lib/ui/words';
	import { enhance, refreshEvery } from '$lib/ui/refresh';

	/** How far the questions of a course are checked by the checks as they are now, with a way to stop it and to go on. */
	let { checking, mayChange }: { checking: Checking; mayChange: boolean } = $props();

	const going = $derived(checking.state === 'running' || checking.state === 'waiting');
	$effect(() => {
		if (!going) return;
		return refreshEvery(1500);
	});
	const words = $derived(
		checking.state === 'waiting'
			? 'The questions are checked in a moment.'
			: checking.state === 'running'
				? checking.done < checking.total
					? `Checking the questions: ${figure(checking.done)} of ${figure(checking.total)}.`
					: 'The questions are held against one another.'
				: checking.state === 'stopped'
					? `The checking was stopped at ${figure(checking.done)} of ${figure(checking.total)} questions. What is listed may be old.`
					: `The checking broke off: ${checking.failure}`
	);
</script>

<form method="POST" action="?/{going ? 'stop' : 'check'}" use:enhance class="checking" role="status">
	<span>{words}</span>
	{#if checking.total && going}<Strand value={checking.done / checking.total} label="Checked" />{/if}
	{#if mayChange}<button class="btn btn-sm preset-outlined-brand">{going ? 'Stop checking' : 'Check again'}</button
		>{/if}
</form>

<style>
	.checking {
		display: flex;
		align-items: center;
		gap: 12px;
		padding: 6px 22px;
		border-bottom: 1px solid var(--line);
		color: var(--ink2);
		font-size: 13.5px;
	}
</style>
