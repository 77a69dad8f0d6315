<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { visible } from '$core/markup/visible';
	import { kinds, kindName } from '$core/kinds';
	import type { StoredQuestion } from '$lib/server/banks/banks';
	import Findings from '$lib/ui/Findings.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import QuestionView from '$lib/ui/QuestionView.svelte';
	import Rows from '$lib/ui/Rows.svelte';
	import Source from '$lib/ui/Source.svelte';
	import WordChanges from '$lib/ui/WordChanges.svelte';
	import { count, dateTime, pathText } from '$lib/ui/words';

	let { data } = $props();
	type Row = (typeof data.questions)[number];
	let shown = $state<StoredQuestion | null>(null);
	let chosen = $state<number | null>(null);
	let tab = $state<'question' | 'try' | 'source' | 'about'>('question');
	let asked = 0;
	let timer: ReturnType<typeof setTimeout> | undefined;

	function show(changes: Record<string, string | null>) {
		const next = new URL(page.url);
		for (const [name, value] of Object.entries(changes)) {
			if (value === null || value === '') next.searchParams.delete(name);
			else next.searchParams.set(name, value);
		}
		void goto(next, { keepFocus: true, noScroll: true, replaceState: true });
	}
	function look(words: string) {
		clearTimeout(timer);
		timer = setTimeout(() => show({ words, question: null }), 250);
	}
	async function fetchQuestion(id: number) {
		asked += 1;
		const mine = asked;
		const answer = await fetch(`/courses/${data.course.id}/banks/questions/${id}`);
		if (mine === asked) shown = answer.ok ? ((await answer.json()) as StoredQuestion) : null;
	}
	function choose(row: Row) {
		chosen = row.id;
		void fetchQuestion(row.id);
	}
	$effect(() => {
		const wanted = Number(page.url.searchParams.get('question')) || data.questions[0]?.id || null;
		if (chosen === null || !data.questions.some((row) => row.id === chosen)) {
			chosen = wanted;
			if (wanted) void fetchQuestion(wanted);
			else shown = null;
		}
	});
	const title = $derived(
		data.tree.find((node) => node.id === data.filter.categoryId)?.name ?? data.bank?.name ?? 'Banks'
	);
	const place = $derived(data.questions.findIndex((row) => row.id === chosen) + 1);
</script>

<svelte:head><title>{title} · Banks · Yarn Barrow</title></svelte:head>
{#if !data.bank}
	<div class="sheet">
		<h1>Banks</h1>
		<p class="mute mt-2">
			This course has no bank yet. A bank comes to be when a load is taken in: <a
				class="word"
				href="/courses/{data.course.id}/loads">drop a package on Loads</a
			>.
		</p>
	</div>
{:else}
	<div class="columns">
		<section class="column" aria-label="Categories">
			<h1 class="visually-hidden">Banks of {data.course.name}</h1>
			<select
				class="field mb-3 w-full font-bold"
				aria-label="Bank"
				value={data.bank.id}
				onchange={(event) =>
					show({ bank: event.currentTarget.value, category: null, question: null, words: null, kind: null })}
			>
				{#each data.banks as bank (bank.id)}<option value={bank.id}
						>{bank.name} ({bank.questions.toLocaleString('en')})</option
					>{/each}
			</select>
			<label class="mute mb-1 flex items-center gap-2 text-[13px]"
				><input
					type="checkbox"
					checked={data.filter.withUnder}
					onchange={(event) => show({ under: event.currentTarget.checked ? null : '0' })}
				/> with what is under it</label
			>
			<table class="rows tree">
				<colgroup><col /><col style="width: 62px" /><col style="width: 66px" /></colgroup>
				<thead><tr><th>Category</th><th class="number">here</th><th class="number">all</th></tr></thead>
				<tbody>
					<tr class:chosen={data.filter.categoryId === null}
						><td
							><button
								type="button"
								aria-pressed={data.filter.categoryId === null}
								onclick={() => show({ category: null, question: null })}><b>Whole bank</b></button
							></td
						><td></td><td class="number">{data.bank.questions.toLocaleString('en')}</td></tr
					>
					{#each data.tree as node (node.id)}
						<tr class:chosen={data.filter.categoryId === node.id}>
							<td style="padding-left: {8 + node.depth * 14}px"
								><span class="flex items-center gap-1"
									><button
										type="button"
										class="cut"
										title={node.name}
										aria-pressed={data.filter.categoryId === node.id}
										onclick={() => show({ category: String(node.id), question: null })}>{node.name}</button
									>{#if node.allSnags}<span class="doubtful shrink-0 text-[12px]" title={count(node.allSnags, 'snag')}
											>~{node.allSnags}<span class="visually-hidden"> snags</span></span
										>{/if}</span
								></td
							>
							<td class="number mute">{node.own ? node.own.toLocaleString('en') : ''}</td>
							<td class="number">{node.all.toLocaleString('en')}</td>
						</tr>
					{/each}
				</tbody>
			</table>
		</section>
		<section class="column middle" aria-label="Questions">
			<div class="filters">
				<h2 class="cut mr-auto" {title}>
					{title} <span class="mute font-normal">{data.questions.length.toLocaleString('en')}</span>
				</h2>
				<input
					class="field"
					type="search"
					placeholder="find words"
					aria-label="Find words"
					value={data.filter.words}
					oninput={(event) => look(event.currentTarget.value)}
				/>
				<select
					class="field"
					aria-label="Kind"
					value={data.filter.kind}
					onchange={(event) => show({ kind: event.currentTarget.value, question: null })}
					><option value="">any kind</option>{#each kinds as one (one)}<option value={one}>{kindName(one)}</option
						>{/each}</select
				>
			</div>
			<Rows
				items={data.questions}
				{chosen}
				{choose}
				label="Questions"
				columns="minmax(0, 1fr) 120px 40px 96px"
				narrow="minmax(0, 1fr) 36px 80px"
			>
				{#snippet head()}<span role="columnheader">Question</span><span class="roomy" role="columnheader">Kind</span
					><span class="text-right" role="columnheader">Pts</span><span role="columnheader">Snags</span>{/snippet}
				{#snippet line(row: Row)}
					<span class="cut" role="cell" title={row.title}>{row.title}</span>
					<span class="roomy mute cut" role="cell">{kindName(row.kind)}</span>
					<span class="text-right" role="cell">{row.points ?? '–'}</span>
					<span role="cell"
						>{#if row.worst}<Mark severity={row.worst} word={count(row.snags, 'snag')} />{/if}</span
					>
				{/snippet}
			</Rows>
			{#if !data.questions.length}<p class="mute p-5">
					{data.filter.words ? `No question here has the words “${data.filter.words}”.` : 'No question stands here.'}
				</p>{/if}
		</section>
		<section class="column paper" aria-label="The question">
			{#if shown}
				<p class="mute mb-2 flex justify-between gap-3 text-[13px]">
					<span class="cut">{pathText(shown.category)}</span><span class="whitespace-nowrap"
						>{place ? `${place} of ${data.questions.length}` : ''} <kbd>k</kbd> <kbd>j</kbd></span
					>
				</p>
				<div class="tabs" role="tablist">
					<button role="tab" type="button" aria-selected={tab === 'question'} onclick={() => (tab = 'question')}
						>Question</button
					>
					<button role="tab" type="button" aria-selected={tab === 'try'} onclick={() => (tab = 'try')}>Try it</button>
					<button role="tab" type="button" aria-selected={tab === 'source'} onclick={() => (tab = 'source')}
						>Source</button
					>
					<button role="tab" type="button" aria-selected={tab === 'about'} onclick={() => (tab = 'about')}>About</button
					>
					<span class="mute ml-auto self-center whitespace-nowrap text-[13px]"
						>{shown.question.points === null ? '' : count(shown.question.points, 'point')}</span
					>
				</div>
				{#if tab === 'question' || tab === 'try'}
					<h2 class="mb-2">{visible(shown.question.title)}</h2>
					<QuestionView
						question={shown.question}
						courseId={data.course.id}
						mode={tab === 'try' ? 'try' : 'key'}
						words={shown.reports.flatMap((report) => report.words)}
					/>
					{#if tab === 'question' && shown.reports.length}
						<div class="mt-5"><Findings findings={shown.reports} /></div>
						<a
							class="word text-[13px]"
							href="/courses/{data.course.id}/snags?check={shown.reports[0]!.rule}&question={shown.id}"
							>Deal with it on Snags</a
						>
					{/if}
				{:else if tab === 'source'}
					<Source
						source={shown.source}
						file={shown.question.source?.file ?? ''}
						first={shown.question.source?.line ?? 1}
						lit={[...new Set(shown.reports.flatMap((report) => report.line ?? []))]}
					/>
				{:else}
					<table class="rows">
						<tbody>
							<tr><td class="mute">Kind</td><td>{kindName(shown.question.kind)}</td></tr>
							<tr><td class="mute">Tags</td><td>{shown.question.tags.join(', ') || '–'}</td></tr>
							<tr
								><td class="mute">From</td><td
									>{shown.from ?? '–'}{shown.question.source ? `, ${shown.question.source.file}` : ''}</td
								></tr
							>
							<tr><td class="mute">Identifier</td><td class="mono">{shown.question.identifier || '–'}</td></tr>
							<tr
								><td class="mute">Used in</td><td
									>{#each shown.usedIn as quiz (quiz.id)}<a
											class="word block"
											href="/courses/{data.course.id}/quizzes/{quiz.id}">{quiz.title}</a
										>{:else}no quiz names it{/each}</td
								></tr
							>
							<tr
								><td class="mute">Key</td><td
									>{shown.verified
										? `verified by ${shown.verified.by}, ${dateTime(shown.verified.at)}`
										: 'not verified'}</td
								></tr
							>
							{#each shown.question.metadata as one (one.name)}<tr
									><td class="mute">{one.name}</td><td>{one.value}</td></tr
								>{/each}
						</tbody>
					</table>
					{#each shown.history as old (old.version)}
						<h3 class="mt-5">Before {dateTime(old.replaced)}{old.by ? `, replaced by ${old.by}` : ''}</h3>
						<WordChanges before={old.question} after={shown.question} />
					{/each}
				{/if}
			{/if}
		</section>
	</div>
{/if}

<style>
	.columns {
		grid-template-columns: 264px minmax(0, 1fr) 432px;
	}
	.filters input {
		width: 130px;
	}
	.tree {
		table-layout: fixed;
	}
	.tree button {
		cursor: pointer;
		text-align: left;
	}
	@media (max-width: 1120px) {
		.columns {
			grid-template-columns: 200px minmax(0, 1fr) 330px;
		}
	}
</style>
