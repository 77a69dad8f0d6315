<script lang="ts">
	import type { PlaceFinding } from '$lib/server/checks/places';
	import Mark from '$lib/ui/Mark.svelte';
	import { ruleTitle, ruleWhy } from '$lib/ui/rule';

	/** What is wrong with a quiz itself, above the snags of the questions that it can draw. */
	let { findings, courseId }: { findings: PlaceFinding[]; courseId: number } = $props();
</script>

<ul class="mx-4 mb-3">
	{#each findings as { rule, severity, message, place }, at (at)}<li class="notice {severity} mb-2">
			<p class="flex justify-between gap-3">
				<Mark {severity} word={ruleTitle(rule)} />
				{#if 'quizId' in place}<a class="word text-[13px]" href="/courses/{courseId}/quizzes/{place.quizId}"
						>Open the quiz</a
					>{/if}
			</p>
			<p title={ruleWhy(rule)}>{message}</p>
		</li>{/each}
</ul>
