<script lang="ts">
	import Segments from '$lib/ui/Segments.svelte';
	import OneSitting from './OneSitting.svelte';
	import SideBySide from './SideBySide.svelte';
	import type { Sheet } from './sheet.svelte';

	/** Sittings of a quiz: one by a seed, to be answered; or ten, or those of a list of students, side by side. */
	let { sheet, seed = $bindable(), courseId }: { sheet: Sheet; seed: string; courseId: number } = $props();

	let shown = $state<'one' | 'several'>('one');
</script>

<div class="mb-3 flex items-center gap-3">
	<Segments
		bind:value={shown}
		label="How many sittings"
		choices={[
			{ value: 'one', name: 'One to answer' },
			{ value: 'several', name: 'Side by side' }
		]}
	/>
</div>
{#if shown === 'one'}<OneSitting {sheet} bind:seed {courseId} />
{:else}<SideBySide
		{sheet}
		{seed}
		show={(of) => {
			seed = of;
			shown = 'one';
		}}
	/>{/if}
