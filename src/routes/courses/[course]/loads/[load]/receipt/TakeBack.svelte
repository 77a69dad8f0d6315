<script lang="ts">
	import { count } from '$lib/ui/words';
	import type { PageData } from './$types';
	import { enhance } from '$lib/ui/refresh';

	/** The way back of a load: what it takes along, said in numbers before. */
	let { back, courseId }: { back: PageData['back']; courseId: number } = $props();

	let sure = $state(false);
</script>

{#if sure}
	<form class="notice doubtful" method="POST" action="?/undo" use:enhance>
		{#if back.quizzes.length}
			<p>
				<b
					>{count(back.quizzes.length, 'quiz', 'quizzes')} of the course {back.quizzes.length === 1 ? 'uses' : 'use'} its
					questions</b
				>
				and will lack them:
				{#each back.quizzes as quiz, at (quiz.id)}{at ? ', ' : ''}<a
						class="word"
						href="/courses/{courseId}/quizzes/{quiz.id}">{quiz.title}</a
					>{/each}. Each says so, and has them again when the same bank or category comes back.
			</p>
		{/if}
		{#if back.own.length}
			<p>
				{count(back.own.length, 'quiz', 'quizzes')} that came with it {back.own.length === 1 ? 'goes' : 'go'} with it:
				{#each back.own as quiz, at (quiz.id)}{at ? ', ' : ''}<a
						class="word"
						href="/courses/{courseId}/quizzes/{quiz.id}">{quiz.title}</a
					>{quiz.changed ? ' (changed since)' : ''}{/each}.
			</p>
		{/if}
		<p>
			Taking this load back removes {count(back.questions, 'question')} from the bank{back.replaced
				? `, and puts back ${count(back.replaced, 'question')} as ${back.replaced === 1 ? 'it was' : 'they were'} before`
				: ''}. The load itself stays, to be reviewed again.
		</p>
		{#if back.changed.length}
			<p class="mt-2"><b>{count(back.changed.length, 'question')} changed since:</b></p>
			<ul class="changed">
				{#each back.changed as question (question.id)}<li>
						<a class="word" href="/courses/{courseId}/banks?bank={question.bankId}&question={question.id}"
							>{question.title}</a
						>
					</li>{/each}
			</ul>
			<p class="mt-1">
				<label><input type="radio" name="changed" value="keep" checked /> keep these in the bank</label>
				<label class="ml-4"><input type="radio" name="changed" value="back" /> take these back too</label>
			</p>
		{/if}
		<p class="mt-2 flex gap-2">
			<button class="btn btn-sm preset-filled-brand">Take back {back.questions + back.replaced}</button><button
				class="btn btn-sm preset-outlined-brand"
				type="button"
				onclick={() => (sure = false)}>Leave it</button
			>
		</p>
	</form>
{:else}<button class="btn preset-outlined-brand" type="button" onclick={() => (sure = true)}
		>Undo: take this load back</button
	>{/if}

<style>
	.changed {
		max-height: 160px;
		overflow: auto;
		margin-left: 16px;
		list-style: disc;
	}
</style>
