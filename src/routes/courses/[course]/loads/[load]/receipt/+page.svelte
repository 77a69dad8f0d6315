<script lang="ts">
	import { lookup } from '$core/model/lookup';
	import { enhance } from '$app/forms';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { kindName, type Kind } from '$core/kinds';
	import { pathOfKey } from '$core/take-in/paths';
	import type { Outcome } from '$core/take-in/planned-question';
	import Columns from '$lib/ui/Columns.svelte';
	import Segments from '$lib/ui/Segments.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import { count, dateTime, figure, pathText } from '$lib/ui/words';

	import Charts from './Charts.svelte';

	let { data, form } = $props();
	let sure = $state(false);
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

<svelte:head><title>Receipt of {data.one.file_name} · Yarn Barrow</title></svelte:head>
<Columns name="receipt" widths={[264, 420]} middleLabel="Receipt" lastLabel="Questions behind a number" list={false}>
	{#snippet middle()}
		<div class="flex items-baseline gap-4">
			<h1 class="mr-auto">Receipt</h1>
			{#if data.head.bank}<a
					class="btn btn-sm preset-filled-brand"
					href="/courses/{data.course.id}/banks?bank={data.head.bank.id}">Open the bank</a
				>{/if}
			<button type="button" class="word text-[13px]" onclick={() => print()}>Print</button>
			<a class="word text-[13px]" href="/courses/{data.course.id}/loads/{data.one.id}/receipt/file?as=csv" download
				>CSV</a
			>
			<a class="word text-[13px]" href="/courses/{data.course.id}/loads/{data.one.id}/receipt/file?as=html" download
				>HTML</a
			>
			<a class="word text-[13px]" href="/courses/{data.course.id}/loads">all loads</a>
		</div>
		<p class="mute">
			{data.one.file_name} · {data.one.format}, brought by {data.one.person}, {dateTime(data.one.created)}
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
		</p>
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
				severity={sum('found') === added && sum('found') === data.one.questions_found ? 'whole' : 'broken'}
				word="{figure(sum('found'))} = {parts.map((part) => figure(sum(part))).join(' + ')}"
			/>
			<span class="mute">The file itself counts {count(data.one.questions_found, 'question')}.</span>
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

		<h2 class="mt-7">What the other system made of it</h2>
		<div class="mt-2 flex flex-wrap items-end gap-6">
			<form method="POST" action="?/told" use:enhance>
				<label
					>It says that it imported
					<input class="input w-24" name="told" value={data.one.told_count ?? ''} placeholder="number" /></label
				>
				<button class="btn btn-sm preset-outlined-brand">Compare</button>
			</form>
			{#if data.others.length}
				<label
					>or its own export, loaded here
					<select
						class="select"
						value={page.url.searchParams.get('against') ?? ''}
						onchange={(event) => goto(`?against=${event.currentTarget.value}`, { noScroll: true, keepFocus: true })}
						><option value="">choose a load</option>{#each data.others as other (other.id)}<option
								value={String(other.id)}>{other.file_name}</option
							>{/each}</select
					></label
				>
			{/if}
		</div>
		{#if data.one.told_count !== null}<p class="mt-2">
				{#if data.one.told_count === arrived}<Mark severity="whole" word="The same number: {figure(arrived)}." />
				{:else}<Mark
						severity="broken"
						word="{count(Math.abs(arrived - data.one.told_count), 'question')} {data.one.told_count < arrived
							? 'fewer'
							: 'more'} than the {figure(arrived)} here."
					/>
					{#if data.one.told_count < arrived}<span class="mute"
							>Export its bank, drop the file on the tray, and choose it here to see which are missing.</span
						>{/if}{/if}
			</p>{/if}

		{#if data.mayChange}
			<div class="mt-8">
				{#if form?.refused}<p class="notice broken" role="alert">{form.refused}</p>{/if}
				{#if sure}
					<form class="notice doubtful" method="POST" action="?/undo" use:enhance>
						{#if data.back.quizzes.length}
							<p>
								<b
									>{count(data.back.quizzes.length, 'quiz', 'quizzes')} of the course {data.back.quizzes.length === 1
										? 'uses'
										: 'use'} its questions</b
								>
								and will lack them:
								{#each data.back.quizzes as quiz, at (quiz.id)}{at ? ', ' : ''}<a
										class="word"
										href="/courses/{data.course.id}/quizzes/{quiz.id}">{quiz.title}</a
									>{/each}. Each says so, and has them again when the same bank or category comes back.
							</p>
						{/if}
						{#if data.back.own.length}
							<p>
								{count(data.back.own.length, 'quiz', 'quizzes')} that came with it {data.back.own.length === 1
									? 'goes'
									: 'go'} with it:
								{#each data.back.own as quiz, at (quiz.id)}{at ? ', ' : ''}<a
										class="word"
										href="/courses/{data.course.id}/quizzes/{quiz.id}">{quiz.title}</a
									>{quiz.changed ? ' (changed since)' : ''}{/each}.
							</p>
						{/if}
						<p>
							Taking this load back removes {count(data.back.questions, 'question')} from the bank{data.back.replaced
								? `, and puts back ${count(data.back.replaced, 'question')} as ${data.back.replaced === 1 ? 'it was' : 'they were'} before`
								: ''}. The load itself stays, to be reviewed again.
						</p>
						{#if data.back.changed.length}
							<p class="mt-2"><b>{count(data.back.changed.length, 'question')} changed since:</b></p>
							<ul class="changed">
								{#each data.back.changed as one (one.id)}<li>
										<a class="word" href="/courses/{data.course.id}/banks?bank={one.bankId}&question={one.id}"
											>{one.title}</a
										>
									</li>{/each}
							</ul>
							<p class="mt-1">
								<label><input type="radio" name="changed" value="keep" checked /> keep these in the bank</label>
								<label class="ml-4"><input type="radio" name="changed" value="back" /> take these back too</label>
							</p>
						{/if}
						<p class="mt-2 flex gap-2">
							<button class="btn btn-sm preset-filled-brand"
								>Take back {data.back.questions + data.back.replaced}</button
							><button class="btn btn-sm preset-outlined-brand" type="button" onclick={() => (sure = false)}
								>Leave it</button
							>
						</p>
					</form>
				{:else}<button class="btn preset-outlined-brand" type="button" onclick={() => (sure = true)}
						>Undo: take this load back</button
					>{/if}
			</div>
		{/if}
	{/snippet}
	{#snippet last()}
		{#if data.elsewhere}
			<h2>Against {data.elsewhere.fileName}</h2>
			<p class="mt-2">
				<Mark
					severity={data.elsewhere.lost.length ? 'broken' : data.elsewhere.changed.length ? 'doubtful' : 'whole'}
					word="{data.elsewhere.same} the same, {data.elsewhere.changed.length} changed, {data.elsewhere.lost
						.length} lost there, {data.elsewhere.more.length} only there"
				/>
			</p>
			{#each [['Lost there', data.elsewhere.lost], ['Only there', data.elsewhere.more]] as const as [title, list] (title)}
				{#if list.length}<h3 class="mt-4">{title}</h3>
					<ul>
						{#each list.slice(0, 500) as name, at (at)}<li>{name}</li>{/each}
					</ul>{/if}
			{/each}
			{#if data.elsewhere.changed.length}<h3 class="mt-4">Changed there</h3>
				<ul>
					{#each data.elsewhere.changed.slice(0, 500) as one, at (at)}<li>
							{one.title} <span class="mute text-[13px]">{one.parts.join(', ')}</span>
						</li>{/each}
				</ul>{/if}
		{:else if data.listed}
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
		{:else}<p class="mute">Choose a number to see its questions.</p>{/if}
	{/snippet}
</Columns>

<style>
	button.word {
		cursor: pointer;
		color: var(--woad);
		text-decoration: underline;
		text-underline-offset: 2px;
	}
	.changed {
		max-height: 160px;
		overflow: auto;
		margin-left: 16px;
		list-style: disc;
	}
	@media print {
		form,
		label,
		button,
		:global(.column.paper) {
			display: none;
		}
		:global(.columns.frame) {
			display: block;
		}
	}
</style>
