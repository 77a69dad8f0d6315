<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { dropped, type Uploads } from './uploads.svelte';
	import { count } from './words';

	/** Takes files that are dropped on any page of a course, and says on the other pages what is on its way. */
	let { course, mayChange, uploads }: { course: { id: number; name: string }; mayChange: boolean; uploads: Uploads } =
		$props();
	let over = $state(false);
	let said = $state('');
	$effect(() => {
		// what was said of a drop was said on that page
		void page.url.pathname;
		said = '';
	});
	const onLoads = $derived(page.url.pathname === `/courses/${course.id}/loads`);
	const elsewhere = $derived(uploads.list.filter((upload) => !onLoads || upload.course.id !== course.id));
	const failed = $derived(elsewhere.filter((upload) => upload.state === 'failed'));

	async function drop(event: DragEvent) {
		over = false;
		if (!event.dataTransfer?.types.includes('Files')) return;
		// the browser would leave the page for the file
		event.preventDefault();
		if (!mayChange) {
			said = `You may only look at ${course.name}, so nothing was taken in.`;
			return;
		}
		// the course of the page at this moment, whatever is open when the files have been looked at
		const to = { id: course.id, name: course.name };
		said = 'Looking at what was dropped …';
		const files = await dropped(event.dataTransfer).catch(() => null);
		said = files ? '' : 'What was dropped cannot be read here. Choose the files instead.';
		uploads.add(to, files ?? []);
		if (files?.length && course.id === to.id && !onLoads) void goto(`/courses/${to.id}/loads`);
	}
</script>

<svelte:window
	ondragover={(event) => {
		if (event.dataTransfer?.types.includes('Files')) {
			event.preventDefault();
			over = true;
		}
	}}
	ondragleave={(event) => !event.relatedTarget && (over = false)}
	ondrop={drop}
/>
{#if over}<p class="over">
		{mayChange ? `Drop the files: they become loads of ${course.name}` : `You may only look at ${course.name}`}
	</p>{/if}
{#if said || elsewhere.length}
	<p class="way" role="status">
		{said}
		{#each [...new Map(elsewhere.map((upload) => [upload.course.id, upload.course])).values()] as to (to.id)}
			{@const here = elsewhere.filter((upload) => upload.course.id === to.id)}
			<a class="word" href="/courses/{to.id}/loads">{count(here.length, 'file')} on the way to {to.name}</a>
		{/each}
		{#if failed.length}<span class="broken">{count(failed.length, 'file')} did not arrive.</span>{/if}
	</p>
{/if}

<style>
	.over,
	.way {
		position: fixed;
		left: 50%;
		transform: translateX(-50%);
		z-index: 30;
		padding: 8px 16px;
		border-radius: 6px;
		background: var(--paper);
		border: 1.5px solid var(--woad);
	}
	.over {
		top: 84px;
		pointer-events: none;
		background: var(--woad-soft);
	}
	.way {
		bottom: 62px;
		font-size: 13px;
	}
</style>
