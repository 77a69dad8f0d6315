<script lang="ts">
	import { enhance } from '$app/forms';
	import { kindName, type Kind } from '$core/model/question';
	import Mark from '$lib/ui/Mark.svelte';
	import { count, pathText } from '$lib/ui/words';
	let { data, form } = $props();
	let sure = $state(false);
	const sum = (key: 'found' | 'taken' | 'aside' | 'left') => data.lines.reduce((total, line) => total + line[key], 0);
	const address = (outcome: string, category: string | null) =>
		`?outcome=${outcome}${category === null ? '' : `&category=${encodeURIComponent(category)}`}`;
	const outcomes: Record<string, string> = {
		taken: 'taken in',
		aside: 'set aside',
		left: 'left out',
		all: 'in the file'
	};
	const cells = [
		['all', 'found'],
		['taken', 'taken'],
		['aside', 'aside'],
		['left', 'left']
	] as const;
</script>

<svelte:head><title>Receipt of {data.one.file_name} · Yarn Barrow</title></svelte:head>
<div class="columns" style="grid-template-columns: minmax(0, 1fr) 420px">
	<section class="column" aria-label="Receipt">
		<div class="flex items-baseline justify-between">
			<h1>Receipt</h1>
			<a class="word text-[13px]" href="/courses/{data.course.id}/loads">all loads</a>
		</div>
		<p class="mute mb-3">
			{data.one.file_name} · {data.one.format}, taken in by {data.one.person}{#if data.one.bank_id}. <a
					class="word"
					href="/courses/{data.course.id}/banks?bank={data.one.bank_id}">Open the bank</a
				>{/if}
		</p>
		<table class="rows">
			<thead
				><tr
					><th>Category in the file</th><th class="number">in the file</th><th class="number">= taken in</th><th
						class="number">+ set aside</th
					><th class="number">+ left out</th></tr
				></thead
			>
			<tbody>
				{#each data.lines as line (line.key)}
					<tr class:chosen={data.category === line.key}>
						<td>{pathText(line.category)}</td>
						{#each cells as [outcome, key] (key)}<td class="number"
								>{#if line[key]}<a
										class="word"
										data-sveltekit-noscroll
										href={address(outcome, line.key)}
										aria-label="{line[key]} {outcomes[outcome]} in {pathText(line.category)}">{line[key]}</a
									>{:else}<span class="faint">0</span>{/if}</td
							>{/each}
					</tr>
				{/each}
			</tbody>
			<tfoot>
				<tr class="font-bold">
					<td>In all</td>
					{#each cells as [outcome, key] (key)}<td class="number"
							>{#if sum(key)}<a
									class="word"
									data-sveltekit-noscroll
									href={address(outcome, null)}
									aria-label="{sum(key)} {outcomes[outcome]}">{sum(key)}</a
								>{:else}0{/if}</td
						>{/each}
				</tr>
			</tfoot>
		</table>
		<p class="mt-3">
			<Mark
				severity={sum('found') === sum('taken') + sum('aside') + sum('left') ? 'whole' : 'broken'}
				word="{sum('found')} = {sum('taken')} + {sum('aside')} + {sum('left')}"
			/>
		</p>
		{#if sum('aside')}<p class="mute mt-2">
				What is set aside stays here with its reasons until somebody deals with it. It is in no bank.
			</p>{/if}
		{#if data.reports.length}<p class="mute mt-2">
				About the file itself: {#each data.reports as report, at (at)}<span class="mt-1 block">{report.message}</span
					>{/each}
			</p>{/if}
		{#if data.mayChange}
			<div class="mt-8">
				{#if form?.refused}<p class="notice broken" role="alert">{form.refused}</p>{/if}
				{#if sure}
					<div class="notice doubtful">
						<p>
							Taking this load back removes {count(data.back.questions, 'question')} from the bank{data.back.changed
								? `, ${data.back.changed} of them changed since`
								: ''}{data.back.quizzes
								? `, and takes them out of ${count(data.back.quizzes, 'quiz', 'quizzes')}`
								: ''}. The load itself stays, to be reviewed again.
						</p>
						<form method="POST" action="?/undo" use:enhance class="mt-2 flex gap-2">
							<button class="button small">Take back {data.back.questions}</button><button
								class="button small ghost"
								type="button"
								onclick={() => (sure = false)}>Leave it</button
							>
						</form>
					</div>
				{:else}<button class="button ghost" type="button" onclick={() => (sure = true)}
						>Undo: take this load back</button
					>{/if}
			</div>
		{/if}
	</section>
	<section class="column paper" aria-label="Questions behind a number">
		{#if data.listed}
			<h2>
				{count(data.questions.length, 'question')}
				{outcomes[data.outcome ?? 'all']}{data.category === null
					? ''
					: `, ${pathText(data.category.split('\n').filter(Boolean))}`}
			</h2>
			<table class="rows mt-2">
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
									>{kindName(question.kind as Kind)}{#if question.outcome === 'aside' && question.why}
										· {question.why}{/if}</span
								>
							</td>
						</tr>
					{/each}
				</tbody>
			</table>
		{:else}<p class="mute">Choose a number to see its questions.</p>{/if}
	</section>
</div>
