<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import Mark from '$lib/ui/Mark.svelte';
	import { count, figure } from '$lib/ui/words';
	import type { PageData } from './$types';
	import { enhance } from '$lib/ui/refresh';

	/** What another system says that it has taken of a load, held against what arrived here. */
	let { told, others, arrived }: { told: number | null; others: PageData['others']; arrived: number } = $props();
</script>

<h2 class="mt-7">What the other system made of it</h2>
<div class="mt-2 flex flex-wrap items-end gap-6">
	<form method="POST" action="?/told" use:enhance>
		<label
			>It says that it imported
			<input class="input w-24" name="told" value={told ?? ''} placeholder="number" /></label
		>
		<button class="btn btn-sm preset-outlined-brand">Compare</button>
	</form>
	{#if others.length}
		<label
			>or its own export, loaded here
			<select
				class="select"
				value={page.url.searchParams.get('against') ?? ''}
				onchange={(event) => goto(`?against=${event.currentTarget.value}`, { noScroll: true, keepFocus: true })}
				><option value="">choose a load</option>{#each others as other (other.id)}<option value={String(other.id)}
						>{other.file_name}</option
					>{/each}</select
			></label
		>
	{/if}
</div>
{#if told !== null}<p class="mt-2">
		{#if told === arrived}<Mark severity="whole" word="The same number: {figure(arrived)}." />
		{:else}<Mark
				severity="broken"
				word="{count(Math.abs(arrived - told), 'question')} {told < arrived ? 'fewer' : 'more'} than the {figure(
					arrived
				)} here."
			/>
			{#if told < arrived}<span class="mute"
					>Export its bank, drop the file on the tray, and choose it here to see which are missing.</span
				>{/if}{/if}
	</p>{/if}
