<script lang="ts">
	import { goto } from '$app/navigation';
	import Keys from '$lib/ui/Keys.svelte';
	import Thread from '$lib/ui/Thread.svelte';
	let { data, children } = $props();
	let keys: Keys;
	let going = 0;
	const stations: Record<string, string> = { l: 'loads', b: 'banks', s: 'snags', q: 'quizzes', d: 'dispatch' };

	function press(event: KeyboardEvent) {
		const target = event.target as HTMLElement;
		if (event.ctrlKey || event.metaKey || event.altKey) return;
		if (/^(INPUT|SELECT|TEXTAREA)$/.test(target.tagName)) {
			if (event.key === 'Escape') target.blur();
			return;
		}
		if (event.key === '?') keys.open();
		else if (event.key === '/') {
			const search = document.querySelector<HTMLInputElement>('main input[type=search]');
			if (!search) return;
			event.preventDefault();
			search.focus();
		} else if (event.key === 'g') going = Date.now();
		else if (stations[event.key] && Date.now() - going < 1500) {
			going = 0;
			void goto(`/courses/${data.course.id}/${stations[event.key]}`);
		}
	}
</script>

<svelte:window onkeydown={press} />
<div class="page">
	<Thread
		course={data.course}
		courses={data.courses}
		waiting={data.waiting}
		person={data.person}
		showKeys={() => keys.open()}
	/>
	<main>{@render children()}</main>
</div>
<Keys bind:this={keys} />

<style>
	.page {
		height: 100vh;
		min-width: 900px;
		display: flex;
		flex-direction: column;
	}
	main {
		flex: 1;
		min-height: 0;
		display: flex;
		flex-direction: column;
	}
</style>
