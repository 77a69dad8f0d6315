<script lang="ts">
	import type { Mending } from '$lib/server/snags/mending';
	import { ruleTitle } from '$lib/ui/rule';
	import Strand from '$lib/ui/Strand.svelte';
	import { figure } from '$lib/ui/words';
	import { untrack } from 'svelte';
	import type { SnagsView } from './snags.svelte';
	import { enhance, refreshEvery } from '$lib/ui/refresh';

	/** How far a mend of very many is, with a way to stop it; once it is done it is told with the way back. */
	let { mending, view, mayChange }: { mending: Mending; view: SnagsView; mayChange: boolean } = $props();

	const going = $derived(mending.state === 'running' || mending.state === 'waiting');
	/** The mend that was seen to go on here. */
	let seen = 0;
	$effect(() => {
		if (!going) return;
		seen = mending.id;
		return refreshEvery(1500);
	});
	$effect(() => {
		const { id, state, result, rule } = mending;
		if (state !== 'done' || seen !== id || !result) return;
		seen = 0;
		untrack(() => view.told(rule, result));
	});
	const words = $derived(
		mending.state === 'waiting'
			? `“${ruleTitle(mending.rule)}” is mended in a moment.`
			: mending.state === 'running'
				? `Mending “${ruleTitle(mending.rule)}”: ${figure(mending.done)} of ${figure(mending.total)}. You may leave this page.`
				: mending.state === 'stopped'
					? `The mend of “${ruleTitle(mending.rule)}” was stopped. Nothing was changed.`
					: `The mend of “${ruleTitle(mending.rule)}” broke off, and nothing was changed: ${mending.failure}`
	);
</script>

{#if mending.state !== 'done'}
	<form method="POST" action="?/stopMending" use:enhance class="mending" role="status">
		<span>{words}</span>
		{#if mending.total && going}<Strand value={mending.done / mending.total} label="Mended" />{/if}
		{#if mayChange && going}<button class="btn btn-sm preset-outlined-brand">Stop the mend</button>{/if}
	</form>
{/if}

<style>
	.mending {
		display: flex;
		align-items: center;
		gap: 12px;
		padding: 6px 22px;
		border-bottom: 1px solid var(--line);
		color: var(--ink2);
		font-size: 13.5px;
	}
</style>
