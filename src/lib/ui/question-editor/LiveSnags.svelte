<script lang="ts">
	import { checkQuestion } from '$core/checks/one';
	import type { Question } from '$core/kinds';
	import { ruleTitle } from '../rule';
	import Mark from '../Mark.svelte';

	/** What the checks find in a question while it is written, a moment after the last letter. */
	let { question }: { question: Question } = $props();

	const pause = 250;
	let found = $state.raw<{ rule: string; severity: 'broken' | 'doubtful' | 'untidy'; message: string }[]>([]);
	$effect(() => {
		const now = $state.snapshot(question) as Question;
		const timer = setTimeout(() => {
			try {
				found = checkQuestion(now);
			} catch {
				// while it is being written a question may be none
			}
		}, pause);
		return () => clearTimeout(timer);
	});
</script>

{#if found.length}
	<ul class="flex flex-col gap-1 text-[13px]" aria-label="Snags of what is written">
		{#each found as { rule, severity, message }, at (at)}<li>
				<Mark {severity} word={ruleTitle(rule)} /> <span class="mute">{message}</span>
			</li>{/each}
	</ul>
{/if}
