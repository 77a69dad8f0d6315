<script lang="ts">
	import { kindName, type Kind } from '$core/kinds';
	import type { NamedQuestion } from '$lib/server/quizzes/pool-page';
	import { latest } from '$lib/ui/latest';

	/** Finds a question of the course by its words, to do something with it. */
	let { courseId, label, pick }: { courseId: number; label: string; pick: (question: NamedQuestion) => void } =
		$props();

	let words = $state('');
	let found = $state.raw<NamedQuestion[] | null>(null);
	const ask = latest(async (text: string) => {
		const address = `/courses/${courseId}/quizzes/find?words=${encodeURIComponent(text)}`;
		const answer = await fetch(address, { headers: { Accept: 'application/json' } }).catch(() => null);
		return answer?.ok ? ((await answer.json()) as NamedQuestion[]) : [];
	});
	async function look() {
		if (words.trim().length < 2) return void (found = null);
		const given = await ask(words);
		if (given) found = given;
	}
	function take(question: NamedQuestion) {
		pick(question);
		words = '';
		found = null;
	}
</script>

<div class="mt-3">
	<label class="mute flex flex-col gap-1"
		><span>{label}</span>
		<input
			class="input w-full max-w-[420px]"
			type="search"
			placeholder="words of it"
			bind:value={words}
			oninput={look}
		/></label
	>
	{#if found}
		<ul class="found" aria-label="Questions found">
			{#each found as question (question.id)}<li>
					<button type="button" class="w-full text-left" onclick={() => take(question)}
						><span class="cut block">{question.title}</span><span class="mute text-[12.5px]"
							>{kindName(question.kind as Kind)} · {[question.bank, question.category]
								.filter(Boolean)
								.join(' › ')}</span
						></button
					>
				</li>{:else}<li class="mute">No question has these words.</li>{/each}
		</ul>
	{/if}
</div>

<style>
	.found {
		max-height: 180px;
		overflow: auto;
		border-left: 2px solid var(--line2);
		padding-left: 10px;
		margin-top: 4px;
	}
	button {
		cursor: pointer;
		padding: 3px 0;
	}
</style>
