<script lang="ts">
	import { kindName, type Kind } from '$core/kinds';
	import { pathOfKey } from '$core/take-in/paths';
	import { count, pathText } from '$lib/ui/words';
	import type { PageData } from './$types';

	/** The questions behind a number of the receipt; `spoken` says each outcome in words. */
	let { data, spoken }: { data: PageData; spoken: Record<string, string | undefined> } = $props();
</script>

<h2>
	{count(data.questions.length, 'question')}
	{spoken[data.outcome ?? 'all']}{data.kind ? `, ${kindName(data.kind)}` : ''}{data.category === null
		? ''
		: `, ${pathText(pathOfKey(data.category))}`}
</h2>
<table class="table mt-2">
	<tbody>
		{#each data.questions as question (question.stagedId)}
			<tr>
				<td class="number mute">{question.number}</td>
				<td>
					{#if question.questionId}<a
							class="word"
							href="/courses/{data.course.id}/banks?bank={question.bankId}&question={question.questionId}"
							>{question.title}</a
						>{:else}{question.title}{/if}
					<span class="mute block text-[13px]"
						>{kindName(question.kind as Kind)}{data.outcome
							? ''
							: ` · ${spoken[question.outcome] ?? question.outcome}`}{#if question.outcome === 'aside' && question.why}
							· {question.why}{/if}</span
					>
				</td>
			</tr>
		{/each}
	</tbody>
</table>
