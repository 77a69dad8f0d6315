<script lang="ts">
	import { enhance } from '$app/forms';
	import { kinds, kindName, type Question } from '$core/model/question';
	import { checkOf } from '$core/checks';
	import { landing, pathKey, planTakeIn, type Decision } from '$core/take-in/plan';
	import Findings from '$lib/ui/Findings.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import QuestionView from '$lib/ui/QuestionView.svelte';
	import Rows from '$lib/ui/Rows.svelte';
	import Source from '$lib/ui/Source.svelte';
	import { bytes, count, pathText, ruleWords } from '$lib/ui/words';

	let { data, form } = $props();
	type Row = (typeof data.questions)[number];
	interface Shown {
		question: Question;
		source: string;
		reports: {
			rule: string;
			severity: 'broken' | 'doubtful' | 'untidy';
			message: string;
			words: string[];
			place: string;
			line: number | null;
		}[];
	}

	// svelte-ignore state_referenced_locally
	let decision = $state<Decision>({
		bankId: data.banks[0]?.id ?? null,
		bankName: data.one.file_name.replace(/\.[^.]+$/, '').replace(/[-_]+/g, ' '),
		categories: 'keep',
		oneCategory: '',
		errors: 'aside',
		leftOut: []
	});
	let only = $state<'all' | 'snags'>('all');
	let kind = $state('');
	let words = $state('');
	let category = $state<string | null>(null);
	let chosen = $state<number | null>(null);
	let shown = $state<Shown | null>(null);
	let tab = $state<'question' | 'try' | 'source' | 'snags' | 'file'>('question');
	let busy = $state(false);
	let asked = 0;

	const bank = $derived(data.banks.find((one) => one.id === decision.bankId));
	const plan = $derived(planTakeIn(data.categories, decision, bank?.paths ?? []));
	const known = $derived(new Set(bank?.paths ?? []));
	const kindsHere = $derived(kinds.filter((one) => data.questions.some((row) => row.kind === one)));
	const rows = $derived(
		data.questions.filter(
			(row) =>
				(only === 'all' || row.marks.length) &&
				(!kind || row.kind === kind) &&
				(category === null || row.category === category || row.category.startsWith(`${category}\n`)) &&
				(!words || row.title.toLowerCase().includes(words.toLowerCase()))
		)
	);
	const withSnags = $derived(data.questions.filter((row) => row.marks.length).length);

	/** The categories as a tree in lines: those that were found and those above them. */
	const tree = $derived.by(() => {
		const all = new Map<string, { path: string[]; own: number; all: number }>();
		for (const found of data.categories) {
			if (!found.path.length) all.set('', { path: [], own: found.questions, all: found.questions });
			for (let depth = 1; depth <= found.path.length; depth += 1) {
				const path = found.path.slice(0, depth);
				const key = pathKey(path);
				const line = all.get(key) ?? { path, own: 0, all: 0 };
				line.all += found.questions;
				if (depth === found.path.length) line.own += found.questions;
				all.set(key, line);
			}
		}
		return [...all].map(([key, line]) => ({ key, ...line }));
	});
	const under = (key: string) =>
		data.categories
			.map((found) => pathKey(found.path))
			.filter((one) => one === key || (key !== '' && one.startsWith(`${key}\n`)));
	const included = (key: string) => under(key).some((one) => !decision.leftOut.includes(one));
	function include(key: string, on: boolean) {
		const these = under(key);
		decision.leftOut = on
			? decision.leftOut.filter((one) => !these.includes(one))
			: [...new Set([...decision.leftOut, ...these])];
	}
	function lands(path: string[]): { text: string; isNew: boolean } {
		const to = landing(path, decision);
		return {
			text: to.at(-1) ?? (decision.bankId === null ? 'the new bank' : 'the bank itself'),
			isNew: to.length > 0 && !known.has(pathKey(to))
		};
	}

	async function choose(row: Row) {
		chosen = row.id;
		if (tab === 'file') tab = 'question';
		asked += 1;
		const mine = asked;
		const answer = await fetch(`/courses/${data.course.id}/loads/${data.one.id}/questions/${row.id}`);
		if (mine === asked && answer.ok) shown = (await answer.json()) as Shown;
	}
	$effect(() => {
		if (chosen === null && data.questions[0])
			void choose(data.questions.find((row) => row.marks.length) ?? data.questions[0]);
		else if (!data.questions.length) tab = 'file';
	});
	const number = $derived(data.questions.find((row) => row.id === chosen)?.number);
	const lit = $derived([...new Set((shown?.reports ?? []).flatMap((report) => report.line ?? []))]);
	const short = (mark: Row['marks'][number]) => checkOf(mark.rule)?.short ?? ruleWords(mark.rule);
	const worst = (row: Row) =>
		[...row.marks].sort(
			(a, b) =>
				['broken', 'doubtful', 'untidy'].indexOf(a.severity) - ['broken', 'doubtful', 'untidy'].indexOf(b.severity)
		)[0];
	const target = $derived(
		`${data.course.name} › ${decision.bankId === null ? decision.bankName.trim() || 'a new bank' : bank?.name}`
	);
</script>

<svelte:head><title>{data.one.file_name} · Review · Yarn Barrow</title></svelte:head>
<div class="columns">
	<section class="column" aria-label="Contents">
		<div class="flex items-baseline justify-between">
			<h1 class="text-[16px]!">Contents</h1>
			<a class="word text-[13px]" href="/courses/{data.course.id}/loads">all loads</a>
		</div>
		<p class="mute mb-2 mt-1 break-words">
			{data.one.file_name} · {data.one.format} · {bytes(data.one.size)} · {count(data.questions.length, 'question')}
		</p>
		<table class="rows found">
			<colgroup><col /><col class="count" /><col class="lands" /></colgroup>
			<thead><tr><th>Category</th><th class="number">Q</th><th>Lands in</th></tr></thead>
			<tbody>
				{#each tree as line (line.key)}
					{@const on = included(line.key)}
					{@const to = lands(line.path)}
					<tr class:faint={!on} class:chosen={category === line.key}>
						<td style="padding-left: {2 + Math.max(0, line.path.length - 1) * 14}px">
							<span class="flex items-center gap-2">
								<input
									type="checkbox"
									checked={on}
									aria-label="Take in {pathText(line.path)}"
									onchange={(event) => include(line.key, event.currentTarget.checked)}
								/>
								<button
									type="button"
									class="cut text-left"
									class:line-through={!on}
									title={pathText(line.path)}
									aria-pressed={category === line.key}
									onclick={() => (category = category === line.key ? null : line.key)}
									>{line.path.at(-1) ?? 'no category'}</button
								>
							</span>
						</td>
						<td class="number">{line.all.toLocaleString('en')}</td>
						<td class="cut text-[13px] {on && to.isNew ? 'whole' : 'mute'}" title={to.text}
							>{on ? (to.isNew ? `+ ${to.text}` : to.text) : 'left out'}</td
						>
					</tr>
				{/each}
			</tbody>
		</table>
		{#if data.quizzes.length}
			<h2 class="mt-5">Quizzes in it</h2>
			{#each data.quizzes as quiz (quiz.id)}<p class="mt-1">{quiz.title}</p>{/each}
			<p class="mute mt-1 text-[13px]">They come along, and refer to the questions in the bank.</p>
		{/if}
		{#if data.others.length}
			<h2 class="mt-5">Not ours</h2>
			<ul class="mt-1 text-[13px]" aria-label="Files that are not ours">
				{#each data.others.slice(0, 12) as other (other.path)}<li class="cut mute" title="{other.path} {other.type}">
						{other.path}
					</li>{/each}
				{#if data.others.length > 12}<li class="mute">and {data.others.length - 12} more</li>{/if}
			</ul>
			<p class="mute mt-1 text-[13px]">No question uses them; they stay behind.</p>
		{/if}
		{#if data.reports.length}
			<h2 class="mt-5">The file itself</h2>
			<button class="word mt-1 text-left" type="button" onclick={() => (tab = 'file')}
				><Mark
					severity={data.reports[0]!.severity}
					word={count(data.reports.length, 'thing to know', 'things to know')}
				/></button
			>
		{/if}
	</section>

	<section class="column middle" aria-label="Questions">
		<div class="filters">
			<h2 class="mr-auto">Questions</h2>
			<input class="field" type="search" placeholder="find" aria-label="Find a question" bind:value={words} />
			<button
				class="field"
				type="button"
				aria-pressed={only === 'snags'}
				onclick={() => (only = only === 'all' ? 'snags' : 'all')}><b>{withSnags}</b> with snags</button
			>
			<select class="field" aria-label="Kind" bind:value={kind}
				><option value="">any kind</option>{#each kindsHere as one (one)}<option value={one}>{kindName(one)}</option
					>{/each}</select
			>
		</div>
		<Rows
			items={rows}
			{chosen}
			{choose}
			label="Questions of the load"
			columns="38px minmax(0, 1fr) 116px 36px 128px"
			narrow="26px minmax(0, 1fr) 116px"
		>
			{#snippet head()}<span class="text-right" role="columnheader">No.</span><span role="columnheader">Question</span
				><span class="roomy" role="columnheader">Kind</span><span class="roomy text-right" role="columnheader">Pts</span
				><span role="columnheader">Snags</span>{/snippet}
			{#snippet line(row: Row)}
				{@const mark = worst(row)}
				<span class="mute text-right" role="cell">{row.number}</span>
				<span class="cut" role="cell" title={row.title}>{row.title || '(no title)'}</span>
				<span class="roomy mute cut" role="cell">{kindName(row.kind)}</span>
				<span class="roomy text-right" role="cell">{row.points ?? '–'}</span>
				<span class="cut" role="cell"
					>{#if mark}<Mark
							severity={mark.severity}
							word={short(mark) + (row.marks.length > 1 ? ` +${row.marks.length - 1}` : '')}
						/>{/if}</span
				>
			{/snippet}
		</Rows>
		{#if !rows.length}<p class="mute p-5">
				{data.questions.length
					? 'No question fits what you asked for.'
					: data.one.failure || 'There is no question in this file.'}
			</p>{/if}
	</section>

	<section class="column paper" aria-label="The question">
		<div class="tabs" role="tablist">
			{#if number !== undefined}
				<button role="tab" type="button" aria-selected={tab === 'question'} onclick={() => (tab = 'question')}
					>Question {number}</button
				>
				<button role="tab" type="button" aria-selected={tab === 'try'} onclick={() => (tab = 'try')}>Try it</button>
				<button role="tab" type="button" aria-selected={tab === 'source'} onclick={() => (tab = 'source')}
					>Source</button
				>
				<button role="tab" type="button" aria-selected={tab === 'snags'} onclick={() => (tab = 'snags')}
					>Snags {shown?.reports.length ?? ''}</button
				>
			{/if}
			{#if data.reports.length}<button
					role="tab"
					type="button"
					aria-selected={tab === 'file'}
					onclick={() => (tab = 'file')}>File {data.reports.length}</button
				>{/if}
			<span class="mute ml-auto self-center whitespace-nowrap text-[13px]"
				>{shown?.question.points != null ? count(shown.question.points, 'point') : ''}</span
			>
		</div>
		{#if tab === 'file'}
			<Findings findings={data.reports} />
		{:else if shown}
			{#if tab === 'question' || tab === 'try'}
				<QuestionView
					question={shown.question}
					courseId={data.course.id}
					mode={tab === 'try' ? 'try' : 'key'}
					words={shown.reports.flatMap((report) => report.words)}
				/>
				{#if tab === 'question' && shown.reports.length}<div class="mt-5">
						<Findings findings={shown.reports.slice(0, 2)} />
					</div>{/if}
			{:else if tab === 'source'}
				<Source
					source={shown.source}
					file={shown.question.source?.file ?? ''}
					first={shown.question.source?.line ?? 1}
					{lit}
				/>
			{:else}
				{#if shown.reports.length}<Findings findings={shown.reports} />{:else}<p>
						<Mark severity="whole" word="No snags in this question." />
					</p>{/if}
			{/if}
		{/if}
	</section>
</div>

<form
	class="bar"
	method="POST"
	action="?/take"
	use:enhance={() => {
		busy = true;
		return async ({ update }) => {
			await update({ reset: false });
			busy = false;
		};
	}}
>
	<input type="hidden" name="decision" value={JSON.stringify(decision)} />
	<div class="sentence" role="status">
		{#if form?.refused}<b class="broken">{form.refused}</b>
		{:else if plan.refusal}<b class="broken">{plan.refusal}</b>
		{:else}
			<b>Take in {plan.taken.toLocaleString('en')} of {count(plan.found, 'question')} into {target}:</b>
			{plan.categories
				? `${count(plan.categories, 'category', 'categories')}, ${plan.newCategories === plan.categories ? (plan.categories === 1 ? 'a new one' : 'all new') : `${plan.newCategories} of them new`}`
				: 'no category'}.
			<span class="mute"
				>{[plan.aside ? `${plan.aside} set aside` : '', plan.left ? `${plan.left} left out` : '']
					.filter(Boolean)
					.join(', ')}{plan.aside || plan.left ? '.' : ''}</span
			>
		{/if}
	</div>
	{#if data.mayChange}
		<select class="field" aria-label="Bank" bind:value={decision.bankId}>
			{#each data.banks as one (one.id)}<option value={one.id}>into {one.name}</option>{/each}
			<option value={null}>into a new bank</option>
		</select>
		{#if decision.bankId === null}<input
				class="field w-40"
				aria-label="Name of the new bank"
				placeholder="name of the bank"
				maxlength="190"
				bind:value={decision.bankName}
			/>{/if}
		<select class="field" aria-label="Categories" bind:value={decision.categories}
			><option value="keep">its own categories</option><option value="one">all in one category</option></select
		>
		{#if decision.categories === 'one'}<input
				class="field w-40"
				aria-label="Name of the one category"
				placeholder="the bank itself"
				maxlength="255"
				bind:value={decision.oneCategory}
			/>{/if}
		<select class="field" aria-label="Questions in error" bind:value={decision.errors}
			><option value="aside">good ones in, rest set aside</option><option value="nothing"
				>nothing unless all are good</option
			></select
		>
		<button class="button" disabled={plan.refusal !== null || busy}
			>{busy ? 'Taking in…' : `Take in ${plan.taken.toLocaleString('en')}`}</button
		>
	{:else}<span class="mute">You may look at this course, and not change it.</span>{/if}
</form>

<style>
	.columns {
		grid-template-columns: 296px minmax(0, 1fr) 392px;
	}
	.filters input {
		width: 96px;
		min-width: 0;
		flex: 0 1 auto;
	}
	.count {
		width: 46px;
	}
	.lands {
		width: 96px;
	}
	.found {
		table-layout: fixed;
	}
	.found button {
		cursor: pointer;
	}
	.sentence {
		flex: 1 1 300px;
	}
	button.field {
		cursor: pointer;
		white-space: nowrap;
	}
	button.field[aria-pressed='true'] {
		border-color: var(--woad);
		background: var(--woad-soft);
	}
	@media (max-width: 1120px) {
		.columns {
			grid-template-columns: 236px minmax(0, 1fr) 316px;
		}
		.count {
			width: 36px;
		}
		.lands {
			width: 76px;
		}
	}
</style>
