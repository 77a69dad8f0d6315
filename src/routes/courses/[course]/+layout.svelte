<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { untrack } from 'svelte';
	import Keys from '$lib/ui/Keys.svelte';
	import { isNoShortcut, isTyping, stationKeys } from '$lib/ui/keys';
	import Thread from '$lib/ui/Thread.svelte';
	import Toasts from '$lib/ui/Toasts.svelte';
	import Tray from '$lib/ui/Tray.svelte';
	import { setUploads, Uploads } from '$lib/ui/uploads.svelte';
	import { bytes } from '$lib/ui/words';
	import { refresh } from '$lib/ui/refresh';
	let { data, children } = $props();
	let keys: Keys;
	let going = 0;

	// it goes on from page to page and from course to course; each file is sent to the course that it was dropped in
	const uploads = untrack(() => new Uploads(data.limit, bytes(data.limit), () => refresh()));
	setUploads(uploads);

	function press(event: KeyboardEvent) {
		if (isTyping(event) && event.key === 'Escape') (event.target as HTMLElement).blur();
		if (isNoShortcut(event)) return;
		if (event.key === '?') keys.open();
		else if (event.key === '/') {
			const search = document.querySelector<HTMLInputElement>('main input[type=search]');
			if (!search) return;
			event.preventDefault();
			search.focus();
		} else if (event.key === 'g') going = Date.now();
		else if (stationKeys.has(event.key) && Date.now() - going < 1500) {
			going = 0;
			void goto(`/courses/${data.course.id}/${stationKeys.get(event.key)}`);
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
	<!-- a page is built anew for each address, so that nothing in it belongs to the course or the load before -->
	{#key page.url.pathname}<main>{@render children()}</main>{/key}
</div>
<Tray course={data.course} mayChange={data.mayChange} {uploads} />
<Keys bind:this={keys} />
<Toasts />

<style>
	.page {
		height: 100vh;
		min-width: 800px;
		display: flex;
		flex-direction: column;
	}
	main {
		flex: 1;
		min-height: 0;
		display: flex;
		flex-direction: column;
	}
	@media print {
		.page {
			display: block;
			height: auto;
			min-width: 0;
		}
		.page > :global(header) {
			display: none;
		}
		main {
			display: block;
			height: auto;
			overflow: visible;
		}
	}
</style>
