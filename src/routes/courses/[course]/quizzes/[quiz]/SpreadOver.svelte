<script lang="ts">
	import Segments from '$lib/ui/Segments.svelte';
	import type { Over } from './figures';

	/** What the questions of a sitting are shown to be spread over. */
	let { over = $bindable() }: { over: Over } = $props();
</script>

<Segments
	bind:value={over}
	label="Spread over"
	choices={[
		{ value: 'categories', name: 'categories' },
		{ value: 'kinds', name: 'kinds' },
		{ value: 'tags', name: 'tags' }
	]}
/>
