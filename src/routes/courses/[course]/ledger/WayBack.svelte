<script lang="ts">
	import type { WayBack } from '$lib/server/changes/undo';
	import type { Done } from '$lib/server/changes/deed';
	import Ask from '$lib/ui/Ask.svelte';
	import { send, tellDone } from '$lib/ui/doing';
	import { count } from '$lib/ui/words';
	import { tell } from '$lib/ui/toasts';
	import { refresh } from '$lib/ui/refresh';

	/** Takes a deed back; what was changed since is told first. */
	let { courseId, deed }: { courseId: number; deed: { id: number; deed: string; subject: string } } = $props();

	let way = $state<WayBack | null>(null);
	let open = $state(false);
	let all = $state(false);
	let busy = $state(false);

	async function look() {
		const answer = await fetch(`/courses/${courseId}/ledger/undo?deed=${deed.id}`);
		if (!answer.ok) {
			tell('There is no way back from this any more.');
			return void refresh();
		}
		way = (await answer.json()) as WayBack;
		all = false;
		// what nobody has touched since goes back at a click
		if (way.changedInAll === 0) await back();
		else open = true;
	}
	async function back() {
		busy = true;
		const sent = await send<Done>(`/courses/${courseId}/ledger/undo`, { deed: deed.id, all });
		busy = false;
		open = false;
		await refresh();
		if (sent.ok) tellDone(courseId, sent.value, refresh);
		else tell(sent.message);
	}
</script>

<button
	type="button"
	class="btn btn-sm preset-outlined-brand"
	disabled={busy}
	aria-label="Undo: {deed.deed} {deed.subject}"
	onclick={look}>Undo</button
>
{#if way && open}
	<Ask
		bind:open
		title="Take back: {way.deed} {way.subject}"
		does="Take back {count(all ? way.questions : way.questions - way.changedInAll, 'question')}"
		{busy}
		act={back}
	>
		<p>
			Of {count(way.questions, 'question')}, {way.changedInAll}
			{way.changedInAll === 1 ? 'was' : 'were'} changed since:
		</p>
		<ul class="max-h-40 list-disc overflow-auto pl-5">
			{#each way.changed as question (question.id)}<li>{question.title}</li>{/each}
			{#if way.changedInAll > way.changed.length}<li>and {way.changedInAll - way.changed.length} more</li>{/if}
		</ul>
		<label class="flex items-center gap-2"
			><input type="checkbox" class="checkbox" bind:checked={all} /> take these back too, and lose what was changed since</label
		>
	</Ask>
{/if}
