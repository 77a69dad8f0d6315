<script lang="ts">
	import { onMount, untrack } from 'svelte';

	/** Words to be looked for, which act while they are typed; also those that are written before the page has come alive. */
	let {
		words,
		label,
		placeholder,
		look
	}: {
		/** What is looked for now. */
		words: string;
		label: string;
		placeholder: string;
		look: (words: string) => unknown;
	} = $props();

	let written = $derived(words);
	const pause = 200;
	let timer: ReturnType<typeof setTimeout> | undefined;
	function lookNow(): void {
		clearTimeout(timer);
		timer = undefined;
		look(written);
	}
	function lookSoon(): void {
		clearTimeout(timer);
		timer = setTimeout(lookNow, pause);
	}
	onMount(() => {
		if (written !== untrack(() => words)) lookSoon();
		return () => clearTimeout(timer);
	});
</script>

<input
	class="input"
	type="search"
	{placeholder}
	aria-label={label}
	bind:value={written}
	oninput={lookSoon}
	onchange={() => timer && lookNow()}
/>

<style>
	input {
		flex: 1 1 84px;
		min-width: 84px;
		max-width: var(--search-width, none);
	}
</style>
