<script lang="ts">
	import Mark from '$lib/ui/Mark.svelte';
	import { bytes, count } from '$lib/ui/words';
	import type { PageData } from './$types';
	import QuizBank from './QuizBank.svelte';
	import type { Review } from './review.svelte';
	import { enhance } from '$lib/ui/refresh';

	/** What a load holds beside its categories: quizzes, pictures, what is not ours, what is said of the file; and its end. */
	let { data, review, aboutFile }: { data: PageData; review: Review; aboutFile: () => void } = $props();

	let sure = $state(false);
</script>

{#if data.quizzes.length}
	<h2 class="mt-5">Quizzes in it</h2>
	{#each data.quizzes as quiz (quiz.id)}<p class="mt-1">{quiz.title}</p>{/each}
	<p class="mute mt-1 text-[13px]">They come along, and refer to the questions in the bank.</p>
	<QuizBank {review} banks={data.banks} quizzes={data.quizzes} mayChange={data.mayChange} />
{/if}
{#if data.used.count}
	<h2 class="mt-5">Pictures and files</h2>
	<p class="mute mt-1 text-[13px]">
		{count(data.used.count, 'file')} of the questions, {bytes(data.used.size)}, each kept once
	</p>
	{#if data.used.shared.length}<ul class="mt-1 text-[13px]" aria-label="Shared pictures">
			{#each data.used.shared as file (file.hash)}<li class="flex gap-2" title={file.name}>
					<a class="cut word" href="/courses/{data.course.id}/files/{file.hash}" target="_blank" rel="noreferrer"
						>{file.name.split('/').at(-1)}</a
					><span class="mute ml-auto whitespace-nowrap">in {file.uses.toLocaleString('en')} questions</span>
				</li>{/each}
		</ul>{/if}
{/if}
{#if data.others.count}
	<h2 class="mt-5">Not ours</h2>
	<ul class="mt-1 text-[13px]" aria-label="Files that are not ours">
		{#each data.others.first as other (other.path)}<li class="cut mute" title="{other.path} {other.type}">
				{other.path}
			</li>{/each}
		{#if data.others.count > data.others.first.length}<li class="mute">
				and {(data.others.count - data.others.first.length).toLocaleString('en')} more
			</li>{/if}
	</ul>
	<p class="mute mt-1 text-[13px]">No question uses them; they stay behind.</p>
{/if}
{#if data.reports.length}
	<h2 class="mt-5">The file itself</h2>
	<button class="word mt-1 text-left" type="button" onclick={aboutFile}
		><Mark
			severity={data.reports[0]!.severity}
			word={count(data.reports.length, 'thing to know', 'things to know')}
		/></button
	>
{/if}
{#if data.mayChange}
	<form
		method="POST"
		action="?/away"
		class="mt-6 text-[13px]"
		use:enhance={({ cancel }) => {
			if (sure) return;
			sure = true;
			cancel();
		}}
	>
		<button class="word">{sure ? 'Yes, throw this load away' : 'Throw this load away'}</button>
		{#if sure}<button type="button" class="word ml-3" onclick={() => (sure = false)}>no, keep it</button>{/if}
	</form>
{/if}
