<script lang="ts">
	import { goto } from '$app/navigation';
	import { send } from '$lib/ui/doing';
	import { tell } from '$lib/ui/toasts';

	/** What comes after a load was taken in: a quiz of its questions, or a dispatch of their bank. */
	let {
		courseId,
		bankId,
		load,
		mayChange
	}: { courseId: number; bankId: number; load: { id: number; file_name: string }; mayChange: boolean } = $props();

	let busy = $state(false);
	async function makeQuiz() {
		busy = true;
		const sent = await send<{ quizId: number }>(`/courses/${courseId}/banks/quiz`, {
			title: load.file_name.replace(/\.[^.]*$/, '').slice(0, 255) || 'Quiz',
			chosen: { bankId, filters: { load: String(load.id) } }
		});
		busy = false;
		if (sent.ok) await goto(`/courses/${courseId}/quizzes/${sent.value.quizId}`);
		else tell(sent.message);
	}
</script>

{#if mayChange}<button type="button" class="word text-[13px]" disabled={busy} onclick={makeQuiz}
		>Make a quiz of these</button
	>{/if}
<a class="word text-[13px]" href="/courses/{courseId}/dispatch?bank={bankId}">Dispatch</a>

<style>
	button {
		cursor: pointer;
	}
</style>
