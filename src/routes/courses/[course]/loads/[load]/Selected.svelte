<script lang="ts">
	import { checkOf, mendTitle } from '$core/checks';
	import { pathKey } from '$core/take-in/paths';
	import { pathText } from '$lib/ui/words';
	import type { Listing } from './listing.svelte';
	import type { Asked, Review } from './review.svelte';

	/** What can be done with the questions that are selected. */
	let {
		review,
		listing,
		act
	}: { review: Review; listing: Listing; act: (what: Asked, said?: string) => Promise<boolean> } = $props();

	let placing = $state(false);
	const mendable = $derived(review.summary.rules.filter(({ rule }) => mendTitle(rule) && listing.mayHave(rule)));
	const steps = (text: string) =>
		text
			.split('/')
			.map((step) => step.trim())
			.filter(Boolean);
	const simple: [string, () => Asked][] = [
		['Leave out', () => ({ do: 'choose', ...listing.chosen, choice: 'leave' })],
		['Set aside', () => ({ do: 'choose', ...listing.chosen, choice: 'aside' })],
		['Include', () => ({ do: 'choose', ...listing.chosen, choice: null })],
		['Key verified', () => ({ do: 'verify', ...listing.chosen, verified: true })]
	];
</script>

<div class="filters bulk" role="group" aria-label="With what is selected">
	<b>{listing.selection.selected.toLocaleString('en')} selected</b>
	{#each simple as [words, asked] (words)}<button
			class="btn btn-sm preset-outlined-brand"
			type="button"
			disabled={review.busy}
			onclick={() => act(asked())}>{words}</button
		>{/each}
	{#each mendable as { rule } (rule)}<button
			class="btn btn-sm preset-outlined-brand"
			type="button"
			disabled={review.busy}
			title={mendTitle(rule)}
			onclick={() => act({ do: 'mend', rule, ...listing.chosen })}>Mend {checkOf(rule)!.short}</button
		>{/each}
	{#if placing}<!-- svelte-ignore a11y_autofocus --><input
			class="input w-40"
			autofocus
			list="landings"
			aria-label="Category for what is selected"
			placeholder="Category / under it"
			onkeydown={async (event) => {
				if (event.key === 'Escape') placing = false;
				if (event.key !== 'Enter') return;
				const to = steps(event.currentTarget.value);
				placing = false;
				await act({ do: 'place', ...listing.chosen, category: pathKey(to) }, `Put into ${pathText(to)}.`);
			}}
		/>{:else}<button class="btn btn-sm preset-outlined-brand" type="button" onclick={() => (placing = true)}
			>Put in …</button
		>{/if}
	<button class="word ml-auto text-[13px]" type="button" onclick={() => listing.selection.clear()}>none</button>
</div>

<style>
	.bulk {
		flex-wrap: wrap;
		row-gap: 4px;
		padding-block: 6px;
		background: var(--woad-soft);
	}
</style>
