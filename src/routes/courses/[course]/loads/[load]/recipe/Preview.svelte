<script lang="ts">
	import { kindName, type Question } from '$core/kinds';
	import Mark from '$lib/ui/Mark.svelte';
	import QuestionView from '$lib/ui/QuestionView.svelte';
	import { count } from '$lib/ui/words';

	/** What a recipe finds so far, the first of its questions as a student sees them. */
	let {
		preview,
		trouble,
		looking,
		courseId
	}: {
		preview: { questions: Question[]; count: number; broken: number; reports: string[] } | null;
		/** Why the recipe cannot be used, or nothing. */
		trouble: string;
		looking: boolean;
		courseId: number;
	} = $props();
</script>

<h2>
	<span role="status">
		{#if trouble}<span class="broken">{trouble}</span>
		{:else if preview}{count(preview.count, 'question')}{#if preview.broken}, <Mark
					severity="broken"
					word="{preview.broken} broken"
				/>{/if}
		{:else}Looking …{/if}
		{#if looking && preview}<span class="faint"> …</span>{/if}
	</span>
</h2>
{#each preview?.reports.slice(0, 4) ?? [] as words, at (at)}<p class="mute mt-2 text-[13px]">{words}</p>{/each}
{#each preview?.questions ?? [] as question, at (at)}
	<article class="mt-4">
		<p class="faint text-[13px]">
			{kindName(question.kind)}{question.points === null ? '' : ` · ${count(question.points, 'point')}`}{question
				.category.length
				? ` · ${question.category.join(' › ')}`
				: ''}
		</p>
		<QuestionView {question} {courseId} />
	</article>
{/each}
{#if preview && preview.count > preview.questions.length}<p class="mute mt-4">
		and {preview.count - preview.questions.length} more
	</p>{/if}

<style>
	article {
		padding-bottom: 14px;
		border-bottom: 1px solid var(--line);
	}
</style>
