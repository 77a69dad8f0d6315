<script lang="ts">
	import { goto } from '$app/navigation';
	import Mark from '$lib/ui/Mark.svelte';
	import { ruleTitle } from '$lib/ui/rule';
	import { count, courseWords, dateTime, figure } from '$lib/ui/words';
	import Download from '@lucide/svelte/icons/download';
	import Printer from '@lucide/svelte/icons/printer';
	import { kindNamed } from '$core/kinds';

	let { data } = $props();
	type Line = (typeof data.lines)[number];

	const byQuestion = $derived.by(() => {
		const questions = new Map<number, Line[]>();
		for (const line of data.lines) questions.set(line.questionId, [...(questions.get(line.questionId) ?? []), line]);
		return [...questions.values()];
	});
	const columns = [
		['questions', 'questions'],
		['kinds', 'kinds'],
		['broken', 'broken'],
		['withoutKey', 'no key'],
		['unverified', 'not verified'],
		['withoutFeedback', 'no feedback'],
		['withoutTitle', 'no title'],
		['withoutPoints', 'no points'],
		['drawn', 'drawn by a quiz']
	] as const;
	const isShort = ({ drawn, questions }: (typeof data.completeness)[number]) => drawn > questions;
</script>

<svelte:head><title>Report · Snags · {data.course.name} · Yarn Barrow</title></svelte:head>
<div class="sheet report">
	<div class="head">
		<h1 class="mr-auto">{data.bank ? `What is wrong in ${data.bank.name}` : 'Report'}</h1>
		{#if data.bank}
			<select
				class="select"
				aria-label="Bank"
				value={data.bank.id}
				onchange={(event) => goto(`?bank=${event.currentTarget.value}`, { keepFocus: true })}
			>
				{#each data.banks as bank (bank.id)}<option value={bank.id}>{bank.name}</option>{/each}
			</select>
			<a class="btn btn-sm preset-outlined-brand" href="/courses/{data.course.id}/snags/report/csv?bank={data.bank.id}"
				><Download size={13} /> As a table</a
			>
			<button type="button" class="btn btn-sm preset-filled-brand" onclick={() => print()}
				><Printer size={13} /> Print</button
			>
		{/if}
	</div>
	{#if data.bank}
		<p class="mute">
			{courseWords(data.course, data.courses)}, {dateTime(new Date())}: {count(data.all, 'snag')} in {count(
				byQuestion.length,
				'question'
			)}{data.all > data.lines.length ? `, of which the first ${figure(data.lines.length)} are listed` : ''}.
		</p>
		<h2 class="mt-6">What each category has and lacks</h2>
		<table class="table mt-2">
			<thead>
				<tr
					><th scope="col">Category</th>{#each columns as [id, name] (id)}<th scope="col" class="number">{name}</th
						>{/each}</tr
				>
			</thead>
			<tbody>
				{#each data.completeness as line (line.category)}
					<tr
						><th scope="row" class="font-normal">{line.category || 'in no category'}</th>
						{#each columns as [id] (id)}<td
								class="number"
								class:broken={(id === 'broken' && line.broken > 0) || (id === 'drawn' && isShort(line))}
								>{id === 'drawn' && !line.drawn ? '' : figure(line[id])}</td
							>{/each}</tr
					>
				{/each}
			</tbody>
		</table>
		<h2 class="mt-6">Question by question</h2>
		{#if byQuestion.length}
			{#each byQuestion as lines (lines[0]!.questionId)}
				{@const first = lines[0]!}
				<section>
					<h3>
						<a class="word" href="/courses/{data.course.id}/banks?bank={data.bank.id}&question={first.questionId}"
							>{first.title}</a
						>
						<span class="mute text-[13px] font-normal"
							>{kindNamed(first.kind as 'essay').name}{first.category ? `, ${first.category}` : ''}</span
						>
					</h3>
					<ul>
						{#each lines as line, at (at)}<li>
								<Mark severity={line.severity} word={ruleTitle(line.rule)} />
								<span class="text-[13.5px]">{line.message}</span>
							</li>{/each}
					</ul>
				</section>
			{/each}
		{:else}<p class="mt-2"><Mark severity="whole" word="Nothing is wrong here." /></p>{/if}
	{:else}<p class="mute mt-2">There is no bank in this course yet.</p>{/if}
</div>

<style>
	.head {
		display: flex;
		gap: 10px;
		align-items: center;
	}
	section {
		padding: 8px 0;
		border-bottom: 1px solid var(--line);
		break-inside: avoid;
	}
	li {
		display: flex;
		gap: 10px;
		align-items: baseline;
		padding: 2px 0;
	}
	li > :global(:first-child) {
		flex: 0 0 210px;
	}
	@media print {
		.head :is(select, a, button) {
			display: none;
		}
	}
</style>
