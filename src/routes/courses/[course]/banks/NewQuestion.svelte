<script lang="ts">
	import { blankQuestion, type MadeKind } from '$core/kinds/blank';
	import { kinds, kindName } from '$core/kinds';
	import type { Done } from '$lib/server/changes/deed';
	import QuestionEditor from '$lib/ui/QuestionEditor.svelte';
	import { storeFile } from '$lib/ui/store-file';
	import { pathText } from '$lib/ui/words';
	import type { BankView } from './bank.svelte';

	/** A question that is made by hand: its kind is chosen, then it is written as any other is edited. */
	let {
		view,
		place,
		begins,
		done
	}: {
		view: BankView;
		/** The names of where it goes. */
		place: string[];
		begins: { language: string; points: number | null };
		/** Is told the key of the question that was made, or null where none was. */
		done: (questionId: number | null) => void;
	} = $props();

	const made = kinds.filter((kind): kind is MadeKind => kind !== 'unreadable');
	let kind = $state<MadeKind>('multiple-choice');

	async function save(question: unknown) {
		const { bankId, categoryId } = view.filter;
		const kept = await view.act<Done & { questionId: number }>('questions', { bankId, categoryId, question });
		if (kept) done(kept.questionId);
	}
</script>

<div class="mb-3 flex items-baseline justify-between gap-3">
	<h2>A new question</h2>
	<span class="mute cut text-[13px]">in {pathText(place)}</span>
</div>
<label class="mb-3 flex flex-col gap-1 text-[13px]"
	>Kind
	<select class="select" bind:value={kind}
		>{#each made as kind (kind)}<option value={kind}>{kindName(kind)}</option>{/each}</select
	></label
>
{#key kind}
	<QuestionEditor
		question={blankQuestion(kind, begins.points, begins.language)}
		courseId={view.courseId}
		upload={(file) => storeFile(view.courseId, file)}
		snags
		busy={view.busy}
		failure={view.failure}
		draftKey="new {view.courseId} {kind}"
		version={0}
		{save}
		cancel={() => done(null)}
	/>
{/key}
