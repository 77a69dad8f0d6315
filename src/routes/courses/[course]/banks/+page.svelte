<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { kinds, kindName } from '$core/kinds';
	import type { StoredQuestion } from '$lib/server/banks/banks';
	import Columns from '$lib/ui/Columns.svelte';
	import { latest } from '$lib/ui/latest';
	import Mark from '$lib/ui/Mark.svelte';
	import { Pages, pagesFrom } from '$lib/ui/pages.svelte';
	import Rows from '$lib/ui/Rows.svelte';
	import Toggle from '$lib/ui/Toggle.svelte';
	import { count, figure } from '$lib/ui/words';
	import BankTree from './BankTree.svelte';
	import QuestionPanel from './QuestionPanel.svelte';

	let { data } = $props();
	type Row = (typeof data.page.rows)[number];
	let shown = $state<StoredQuestion | null>(null);
	let chosen = $state<number | null>(null);
	let timer: ReturnType<typeof setTimeout> | undefined;

	const questions = $derived(
		new Pages<Row>(
			data.page,
			data.pageSize,
			pagesFrom((from) => {
				const address = new URL(`/courses/${data.course.id}/banks/rows`, page.url);
				address.search = page.url.search;
				address.searchParams.set('bank', String(data.bank?.id ?? ''));
				address.searchParams.set('from', String(from));
				return address.href;
			})
		)
	);

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
	const fetchQuestion = latest(async (id: number) => {
		const answer = await fetch(`/courses/${data.course.id}/banks/questions/${id}`);
		return answer.ok ? ((await answer.json()) as StoredQuestion) : undefined;
	});
	async function open(id: number) {
		const found = await fetchQuestion(id);
		if (found !== null) shown = found ?? null;
	}
	function choose(question: Row) {
		chosen = question.id;
		void open(question.id);
	}
	$effect(() => {
		const asked = Number(page.url.searchParams.get('question')) || null;
		const first = data.page.rows;
		if (chosen !== null && questions.placeOf(chosen) >= 0) return;
		chosen = first.find(({ id }) => id === asked)?.id ?? first[0]?.id ?? null;
		if (chosen) void open(chosen);
		else shown = null;
	});
	const title = $derived(data.tree.find(({ id }) => id === data.filter.categoryId)?.name ?? data.bank?.name ?? 'Banks');
	const place = $derived(questions.placeOf(chosen) + 1);
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
	<Columns name="banks" widths={[264, 420]} firstLabel="Categories" middleLabel="Questions" lastLabel="The question">
		{#snippet first()}
			<h1 class="visually-hidden">Banks of {data.course.name}</h1>
			<select
				class="select mb-3 w-full font-bold"
				aria-label="Bank"
				value={data.bank.id}
				onchange={(event) =>
					show({ bank: event.currentTarget.value, category: null, question: null, words: null, kind: null })}
			>
				{#each data.banks as bank (bank.id)}<option value={bank.id}>{bank.name} ({figure(bank.questions)})</option
					>{/each}
			</select>
			<div class="mute mb-2 text-[13px]">
				<Toggle
					on={data.filter.withUnder}
					change={(on) => show({ under: on ? null : '0' })}
					label="with what is under it"
				/>
			</div>
			{#key data.bank.id}
				<BankTree
					tree={data.tree}
					questions={data.bank.questions}
					chosen={data.filter.categoryId}
					choose={(id) => show({ category: id === null ? null : String(id), question: null })}
					label="Categories of {data.bank.name}"
				/>
			{/key}
		{/snippet}
		{#snippet middle()}
			<div class="filters">
				<h2 class="cut mr-auto" {title}>{title} <span class="mute font-normal">{figure(questions.total)}</span></h2>
				<input
					class="input"
					type="search"
					placeholder="find words"
					aria-label="Find words"
					value={data.filter.words}
					oninput={(event) => look(event.currentTarget.value)}
				/>
				<select
					class="select"
					aria-label="Kind"
					value={data.filter.filters.kind ?? ''}
					onchange={(event) => show({ kind: event.currentTarget.value, question: null })}
					><option value="">any kind</option>{#each kinds as kind (kind)}<option value={kind}>{kindName(kind)}</option
						>{/each}</select
				>
			</div>
			<Rows
				source={questions}
				follow
				{chosen}
				{choose}
				label="Questions"
				columns="minmax(0, 1fr) 120px 40px 96px"
				narrow="minmax(0, 1fr) 36px 80px"
			>
				{#snippet head()}<span role="columnheader">Question</span><span class="roomy" role="columnheader">Kind</span
					><span class="text-right" role="columnheader">Pts</span><span role="columnheader">Snags</span>{/snippet}
				{#snippet line(question: Row)}
					<span class="cut" role="cell" title={question.title}>{question.title}</span>
					<span class="roomy mute cut" role="cell">{kindName(question.kind)}</span>
					<span class="text-right" role="cell">{question.points ?? '–'}</span>
					<span role="cell"
						>{#if question.worst}<Mark severity={question.worst} word={count(question.snags, 'snag')} />{/if}</span
					>
				{/snippet}
			</Rows>
			{#if !questions.total}<p class="mute p-5">
					{data.filter.words ? `No question here has the words “${data.filter.words}”.` : 'No question stands here.'}
				</p>{/if}
		{/snippet}
		{#snippet last()}
			{#if shown}<QuestionPanel
					stored={shown}
					courseId={data.course.id}
					place={place ? `${figure(place)} of ${figure(questions.total)}` : ''}
				/>{/if}
		{/snippet}
	</Columns>
{/if}

<style>
	.filters input {
		width: 130px;
	}
</style>
