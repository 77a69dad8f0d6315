<script lang="ts">
	import { lookup } from '$core/model/lookup';
	import { kindName, type Kind } from '$core/kinds';
	import { pathOfKey } from '$core/take-in/paths';
	import type { Outcome } from '$core/take-in/planned-question';
	import Columns from '$lib/ui/Columns.svelte';
	import Segments from '$lib/ui/Segments.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import { count, dateTime, figure, pathText } from '$lib/ui/words';

	import Behind from './Behind.svelte';
	import Charts from './Charts.svelte';
	import Elsewhere from './Elsewhere.svelte';
	import Kept from './Kept.svelte';
	import Onward from './Onward.svelte';
	import TakeBack from './TakeBack.svelte';
	import Told from './Told.svelte';

	let { data, form } = $props();
	let by = $state<'categories' | 'kinds'>('categories');
	type Column = 'found' | Outcome;
	const names: Record<Column, string> = {
		found: 'in the file',
		taken: '= taken in',
		replaced: '+ in place of older',
		aside: '+ set aside',
		left: '+ left out',
		skipped: '+ skipped'
	};
	const spoken = lookup<string>({
		taken: 'taken in',
		replaced: 'in the place of older ones',
		aside: 'set aside',
		left: 'left out',
		skipped: 'skipped as already there',
		all: 'in the file'
	});
	const lines = $derived(data.lines[by]);
	const sum = (column: Column) => data.lines.categories.reduce((total, line) => total + line[column], 0);
	const columns = $derived(
		(Object.keys(names) as Column[]).filter(
			(column) => ['found', 'taken', 'aside', 'left'].includes(column) || sum(column) > 0
		)
	);
	const parts = $derived(columns.filter((column) => column !== 'found'));
	const added = $derived(parts.reduce((total, column) => total + sum(column), 0));
	const arrived = $derived(sum('taken') + sum('replaced'));
	const nameOf = (key: string) => (by === 'kinds' ? kindName(key as Kind) : pathText(pathOfKey(key)));
	const address = (column: Column, key: string | null) =>
		`?outcome=${column === 'found' ? 'all' : column}${key === null ? '' : `&${by === 'kinds' ? 'kind' : 'category'}=${encodeURIComponent(key)}`}`;
</script>

<svelte:head><title>Receipt of {data.taken.file_name} · Yarn Barrow</title></svelte:head>
<Columns name="receipt" widths={[264, 420]} middleLabel="Receipt" lastLabel="Questions behind a number" list={false}>
	{#snippet middle()}
		<div class="flex items-baseline gap-4">
			<h1 class="mr-auto">Receipt</h1>
			{#if data.head.bank}<a
					class="btn btn-sm preset-filled-brand"
					href="/courses/{data.course.id}/banks?bank={data.head.bank.id}">Open the bank</a
				>
				<Onward
					courseId={data.course.id}
					bankId={data.head.bank.id}
					load={data.taken}
					mayChange={data.mayChange && arrived > 0}
				/>{/if}
			<Kept receipt="/courses/{data.course.id}/loads/{data.taken.id}/receipt" loads="/courses/{data.course.id}/loads" />
		</div>
		<p class="mute">
			{data.taken.file_name} · {data.taken.format}, brought by {data.taken.person}, {dateTime(data.taken.created)}
		</p>
		<p class="mb-1">
			Taken into <b>{data.course.name}</b>{#if data.head.bank}&nbsp;› <a
					class="word"
					href="/courses/{data.course.id}/banks?bank={data.head.bank.id}">{data.head.bank.name}</a
				>{/if}{data.head.takenBy ? ` by ${data.head.takenBy}` : ''}{data.head.settled
				? `, ${dateTime(data.head.settled)}`
				: ''}.
			{#if data.head.quizzes.length}
				{data.head.quizzes.length === 1 ? 'Quiz:' : 'Quizzes:'}
				{#each data.head.quizzes as quiz, at (quiz.id)}{at ? ', ' : ''}<a
						class="word"
						href="/courses/{data.course.id}/quizzes/{quiz.id}">{quiz.title}</a
					>{/each}.
			{/if}
			{#if data.head.sameQuizzes.length}
				In the course already, the same, and not taken in again:
				{#each data.head.sameQuizzes as quiz, at (quiz.id)}{at ? ', ' : ''}<a
						class="word"
						href="/courses/{data.course.id}/quizzes/{quiz.id}">{quiz.title}</a
					>{/each}.
			{/if}
		</p>
		{#if data.head.quizzes.some(({ lacks }) => lacks.length)}<ul
				class="notice doubtful mb-3 text-[13.5px]"
				aria-label="What of the quizzes did not come along"
			>
				{#each data.head.quizzes as quiz (quiz.id)}{#each quiz.lacks as words (words)}<li>
							“{quiz.title}”: {words}
						</li>{/each}{/each}
			</ul>{/if}
		{#if data.head.effects.length}<ul class="mute mb-3 text-[13px]" aria-label="Rules that were not the plain ones">
				{#each data.head.effects as effect (effect.rule)}<li>
						By rule: {effect.what} · {count(effect.questions, 'question')}
					</li>{/each}
			</ul>{/if}
		<div class="mb-2">
			<Segments
				bind:value={by}
				choices={[
					{ value: 'categories', name: 'by category' },
					{ value: 'kinds', name: 'by kind' }
				]}
				label="Lines of the receipt"
			/>
		</div>
		<table class="table">
			<thead
				><tr
					><th>{by === 'kinds' ? 'Kind' : 'Category in the file'}</th>{#each columns as column (column)}<th
							class="number">{names[column]}</th
						>{/each}</tr
				></thead
			>
			<tbody>
				{#each lines as line (line.key)}
					<tr class:chosen={(by === 'kinds' ? data.kind : data.category) === line.key}>
						<td>{nameOf(line.key)}</td>
						{#each columns as column (column)}<td class="number"
								>{#if line[column]}<a
										class="word"
										data-sveltekit-noscroll
										href={address(column, line.key)}
										aria-label="{line[column]} {spoken[column === 'found' ? 'all' : column]} in {nameOf(line.key)}"
										>{figure(line[column])}</a
									>{:else}<span class="faint">0</span>{/if}</td
							>{/each}
					</tr>
				{/each}
			</tbody>
			<tfoot>
				<tr class="font-bold">
					<td>In all</td>
					{#each columns as column (column)}<td class="number"
							>{#if sum(column)}<a
									class="word"
									data-sveltekit-noscroll
									href={address(column, null)}
									aria-label="{sum(column)} {spoken[column === 'found' ? 'all' : column]}">{figure(sum(column))}</a
								>{:else}0{/if}</td
						>{/each}
				</tr>
			</tfoot>
		</table>
		<p class="mt-3">
			<Mark
				severity={sum('found') === added && sum('found') === data.taken.questions_found ? 'whole' : 'broken'}
				word="{figure(sum('found'))} = {parts.map((part) => figure(sum(part))).join(' + ')}"
			/>
			<span class="mute">The file itself counts {count(data.taken.questions_found, 'question')}.</span>
		</p>
		{#if sum('aside')}<p class="mute mt-2">
				What is set aside stays with its reasons until somebody deals with it. It is in no bank.
				<a class="word" href="/courses/{data.course.id}/loads/aside">Deal with it</a>
			</p>{/if}
		{#if data.reports.length}<p class="mute mt-2">
				About the file itself: {#each data.reports as report, at (at)}<span class="mt-1 block">{report.message}</span
					>{/each}
			</p>{/if}

		<Charts kinds={data.lines.kinds} snags={data.snags} />

		<Told told={data.taken.told_count} others={data.others} {arrived} />

		{#if data.mayChange}
			<div class="mt-8">
				{#if form?.refused}<p class="notice broken" role="alert">{form.refused}</p>{/if}
				<TakeBack back={data.back} courseId={data.course.id} />
			</div>
		{/if}
	{/snippet}
	{#snippet last()}
		{#if data.elsewhere}
			<Elsewhere elsewhere={data.elsewhere} />
		{:else if data.listed}
			<Behind {data} {spoken} />
		{:else}<p class="mute">Choose a number to see its questions.</p>{/if}
	{/snippet}
</Columns>

<style>
	@media print {
		:global(.columns.frame) {
			display: block;
		}
		:global(.columns.frame :is(form, label, button)),
		:global(.columns.frame .last) {
			display: none;
		}
	}
</style>
