<script lang="ts">
	import { kindName } from '$core/kinds';
	import Mark from '$lib/ui/Mark.svelte';
	import { figure } from '$lib/ui/words';
	import type { PageData } from './$types';

	/** What becomes of questions as a format: kept, changed or left behind, each with the questions concerned; and of the quiz. */
	let { loss, quizLoss, courseId }: { loss: PageData['loss']; quizLoss: PageData['quizLoss']; courseId: number } =
		$props();

	let open = $state<number | null>(null);
	const severities = { kept: 'whole', changed: 'doubtful', lost: 'broken' } as const;
</script>

<table class="table mt-2">
	<thead><tr><th>Kind</th><th class="number">Questions</th><th>What becomes of them</th></tr></thead>
	<tbody>
		{#each loss as line, at (at)}
			<tr class:chosen={open === at}>
				<td>{kindName(line.kind)}</td>
				<td class="number"
					><button
						type="button"
						class="word"
						aria-expanded={open === at}
						aria-label="Show {figure(line.count)} questions"
						onclick={() => (open = open === at ? null : at)}>{figure(line.count)}</button
					></td
				>
				<td>
					<Mark
						severity={severities[line.outcome]}
						word={line.outcome === 'kept' ? 'kept' : line.outcome === 'lost' ? 'stays behind' : 'changed'}
					/>
					{#if line.what}<span class="mute block text-[13px]">{line.what}</span>{/if}
					{#if open === at}<ul class="mt-1 text-[13px]">
							{#each line.questions as question (question.id)}<li>
									<a class="word" href="/courses/{courseId}/banks?question={question.id}">{question.title}</a>
								</li>{/each}{#if line.count > line.questions.length}<li class="mute">
									and {figure(line.count - line.questions.length)} more
								</li>{/if}
						</ul>{/if}
				</td>
			</tr>
		{/each}
	</tbody>
</table>
{#if quizLoss}
	<h3 class="mt-4">The quiz</h3>
	<p class="mt-1">
		<Mark
			severity={quizLoss.carried ? (quizLoss.what.length ? 'doubtful' : 'whole') : 'broken'}
			word={quizLoss.carried
				? quizLoss.what.length
					? 'changed'
					: 'goes as a test: each part with its draw, order and points'
				: 'stays behind'}
		/>
	</p>
	{#each quizLoss.what as words (words)}<p class="mute mt-1 text-[13px]">{words}</p>{/each}
{/if}
