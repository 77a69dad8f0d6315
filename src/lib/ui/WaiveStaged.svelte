<script lang="ts">
	import { ruleTitle } from './rule';
	import { untrack } from 'svelte';

	/** Waives what a rule says of a question of a load, or of all of the load, with a reason; it stays waived in the course. */
	let {
		rules,
		busy,
		waive,
		countOf
	}: {
		rules: string[];
		busy: boolean;
		waive: (rule: string, reason: string, all: boolean) => void;
		countOf?: ((rule: string) => number) | undefined;
	} = $props();

	let open = $state(false);
	let rule = $state(untrack(() => rules[0] ?? ''));
	let reason = $state('');
	const count = $derived(countOf?.(rule) ?? 1);
	function send(all: boolean) {
		waive(rule, reason, all);
		open = false;
		reason = '';
	}
</script>

{#if open}
	<div class="mt-3 flex flex-col gap-2 text-[13px]">
		{#if rules.length > 1}<label class="flex flex-col gap-1"
				>What is waived <select class="select" bind:value={rule}
					>{#each rules as each (each)}<option value={each}>{ruleTitle(each)}</option>{/each}</select
				></label
			>{/if}
		<label class="flex flex-col gap-1"
			>Why it can stay so <input class="input" maxlength="1000" bind:value={reason} /></label
		>
		<p class="flex flex-wrap gap-2">
			<button type="button" class="btn btn-sm preset-filled-brand" disabled={busy} onclick={() => send(false)}
				>Waive it</button
			>
			{#if count > 1}<button
					type="button"
					class="btn btn-sm preset-outlined-brand"
					disabled={busy}
					onclick={() => send(true)}>in the whole load ({count.toLocaleString('en')})</button
				>{/if}
			<button type="button" class="btn btn-sm preset-outlined-brand" onclick={() => (open = false)}
				>Leave it open</button
			>
		</p>
	</div>
{:else}<p class="mt-2">
		<button type="button" class="btn btn-sm preset-outlined-brand" onclick={() => (open = true)}>Waive …</button>
	</p>{/if}
