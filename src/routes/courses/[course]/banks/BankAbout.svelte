<script lang="ts">
	import type { BankAbout } from '$lib/server/banks/banks';
	import { count, dateTime } from '$lib/ui/words';

	/** What is known of a bank beside what is in it: what it is for, when and by whom, from which loads, in which quizzes. */
	let { about, courseId }: { about: BankAbout; courseId: number } = $props();
</script>

<details class="mt-4 text-[13px]">
	<summary class="mute cursor-pointer">About this bank</summary>
	<div class="mt-2 flex flex-col gap-2">
		{#if about.description}<p>{about.description}</p>{/if}
		<p class="mute">Made {dateTime(about.made)}{about.by ? ` by ${about.by}` : ''}.</p>
		{#if about.loads.length}
			<div>
				{#each about.loads as load (load.id)}<a class="word block" href="/courses/{courseId}/loads/{load.id}/receipt"
						>{load.fileName}: {count(load.questions, 'question')}</a
					>{/each}
			</div>
		{/if}
		<div>
			{#each about.quizzes as quiz (quiz.id)}<a class="word block" href="/courses/{courseId}/quizzes/{quiz.id}"
					>{quiz.title}</a
				>{:else}<span class="mute">No quiz draws from it.</span>{/each}
		</div>
	</div>
</details>
