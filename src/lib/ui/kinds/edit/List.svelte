<script lang="ts" generics="Item">
	import type { Snippet } from 'svelte';

	/** Things that are edited one under the other, each of which can be taken out; `what` is what one is called. */
	let {
		items = $bindable(),
		what,
		line,
		make,
		head = '',
		unit = ''
	}: {
		items: Item[];
		what: string;
		line: Snippet<[Item, number]>;
		/** A new one; without it, none can be added. */
		make?: () => Item;
		head?: string;
		unit?: string;
	} = $props();
	const article = $derived(/^[aeiou]/.test(what) ? 'an' : 'a');
</script>

<div>
	{#if head}<p class="flex justify-between"><span>{head}</span><span class="mute">{unit}</span></p>{/if}
	{#each items as item, at (at)}
		<div class="line">
			{@render line(item, at)}
			{#if make}<button
					type="button"
					class="btn btn-sm preset-outlined-brand"
					aria-label="Take {what} {at + 1} out"
					onclick={() => (items = items.filter((_, place) => place !== at))}>×</button
				>{/if}
		</div>
	{/each}
	{#if make}<button
			type="button"
			class="btn btn-sm preset-outlined-brand mt-2"
			onclick={() => (items = [...items, make!()])}>Add {article} {what}</button
		>{/if}
</div>

<style>
	.line {
		display: flex;
		align-items: center;
		gap: 6px;
		padding-top: 5px;
	}
	p {
		color: var(--ink2);
		font-size: 13px;
	}
</style>
