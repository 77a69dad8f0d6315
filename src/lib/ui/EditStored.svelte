<script lang="ts">
	import type { Question } from '$core/kinds';
	import type { StoredQuestion } from '$lib/server/banks/banks';
	import type { Done } from '$lib/server/changes/deed';
	import { send, tellDone } from './doing';
	import { draftOf, dropDraft } from './drafts';
	import { storeFile } from './store-file';
	import QuestionEditor from './QuestionEditor.svelte';
	import WordChanges from './WordChanges.svelte';
	import { untrack } from 'svelte';

	/** A question of a bank to be edited; where another was quicker both are shown, and nothing is lost. */
	let {
		stored,
		view,
		done
	}: {
		stored: StoredQuestion;
		/** The page that it is edited on: `again` shows it anew. */
		view: { courseId: number; again: () => Promise<unknown> };
		done: () => void;
	} = $props();

	interface Clash {
		now: Question;
		version: number;
		by: string | null;
	}
	const draftKey = untrack(() => `question ${stored.id}`);
	const kept = untrack(() => draftOf(draftKey));
	let busy = $state(false);
	let failure = $state('');
	let clash = $state<Clash | null>(null);
	let mine = $state<Question | null>(null);
	let version = $state(untrack(() => kept?.version ?? stored.version));

	async function save(question: unknown) {
		busy = true;
		failure = '';
		const sent = await send<Done>(
			`/courses/${view.courseId}/banks/questions/${stored.id}`,
			{ version, question },
			'PUT'
		);
		busy = false;
		if (sent.ok) {
			dropDraft(draftKey);
			await view.again();
			tellDone(view.courseId, sent.value, () => view.again());
			done();
		} else if (sent.value && typeof sent.value === 'object' && 'clash' in sent.value) {
			clash = sent.value as unknown as Clash;
			mine = question as Question;
		} else failure = sent.message;
	}
</script>

{#if clash && mine}
	<div class="notice doubtful mb-3" role="alert">
		<p>
			<b>{clash.by ?? 'Somebody'}</b> has changed this question meanwhile. What you wrote is still here; below is how theirs
			differs from yours.
		</p>
		<WordChanges before={clash.now} after={mine} />
		<p class="mt-2 flex gap-2">
			<button
				type="button"
				class="btn btn-sm preset-filled-brand"
				onclick={() => {
					version = clash!.version;
					clash = null;
					void save(mine);
				}}>Keep mine on top of theirs</button
			>
			<button
				type="button"
				class="btn btn-sm preset-outlined-brand"
				onclick={() => {
					dropDraft(draftKey);
					void view.again();
					done();
				}}>Leave theirs</button
			>
		</p>
	</div>
{/if}
<QuestionEditor
	question={stored.question}
	courseId={view.courseId}
	upload={(file) => storeFile(view.courseId, file)}
	snags
	rekind
	{busy}
	{failure}
	{draftKey}
	{version}
	from={kept?.question ?? null}
	{save}
	cancel={() => {
		dropDraft(draftKey);
		done();
	}}
/>
