<script lang="ts">
	import { goto } from '$app/navigation';
	import { kindName } from '$core/kinds';
	import { pathOfKey } from '$core/take-in/paths';
	import type { AsideRow } from '$lib/server/loads/aside-list';
	import type { StagedQuestion } from '$lib/server/loads/review';
	import Columns from '$lib/ui/Columns.svelte';
	import { send } from '$lib/ui/doing';
	import { latest } from '$lib/ui/latest';
	import Mark from '$lib/ui/Mark.svelte';
	import { pagesFrom, ShownList } from '$lib/ui/pages.svelte';
	import Rows from '$lib/ui/Rows.svelte';
	import { Selection } from '$lib/ui/selection.svelte';
	import Staged from '$lib/ui/Staged.svelte';
	import { figure, pathText } from '$lib/ui/words';
	import { untrack } from 'svelte';
	import SettleBar from './SettleBar.svelte';
	import { refresh } from '$lib/ui/refresh';

	let { data } = $props();
	/** The question that is chosen, and what is seen of one, which is still the one before while the chosen one is fetched. */
	let chosen = $state.raw<AsideRow | null>(null);
	let seen = $state.raw<{ row: AsideRow; question: StagedQuestion } | null>(null);
	let busy = $state(false);
	let failure = $state('');

	const here = $derived(`/courses/${data.course.id}/loads`);
	const shown = new ShownList<AsideRow>();
	const list = $derived(shown.pages);
	/** Where what was chosen last stands: what comes there once that is gone is next. */
	let stood = 0;
	function takeList() {
		const asked = data.from === null ? '' : `load=${data.from}&`;
		const fetchPage = pagesFrom<AsideRow>((from) => `${here}/aside/rows?${asked}from=${from}`);
		shown.take(asked, data.page, data.pageSize, fetchPage, stood);
	}
	// what the page draws first is what it was sent
	untrack(takeList);
	let taken = untrack(() => data.page);
	$effect.pre(() => {
		if (data.page === taken) return;
		taken = data.page;
		untrack(takeList);
	});
	const selection = new Selection<AsideRow>(() => list.total);
	const inAll = $derived(data.loads.reduce((sum, { aside }) => sum + aside, 0));

	const fetched = latest(async (row: AsideRow) => {
		const answer = await fetch(`${here}/${row.loadId}/questions/${row.id}`);
		return answer.ok ? { row, question: (await answer.json()) as StagedQuestion } : null;
	});
	async function choose(row: AsideRow) {
		chosen = row;
		stood = Math.max(0, list.placeOf(row.id));
		seen = (await fetched(row)) ?? seen;
	}
	// what is chosen may stand on a page that is not here at this moment: another takes its place only once it is gone
	$effect(() => {
		const next = list.at(Math.min(stood, list.total - 1)) ?? list.at(0);
		if (next && !chosen) void choose(next);
		if (!list.total) chosen = seen = null;
	});
	async function act(what: unknown): Promise<boolean> {
		if (!seen) return false;
		busy = true;
		const sent = await send(`${here}/${seen.row.loadId}/review`, what);
		busy = false;
		failure = sent.ok ? '' : sent.message;
		if (!sent.ok) return false;
		await refresh();
		if (chosen) await choose(list.find(({ id }) => id === chosen!.id) ?? chosen);
		return true;
	}
	async function show(load: string) {
		selection.clear();
		chosen = null;
		stood = 0;
		await goto(load ? `?load=${load}` : '?', { keepFocus: true, noScroll: true });
	}
</script>

<svelte:head><title>Set aside · {data.course.name} · Yarn Barrow</title></svelte:head>
<Columns name="aside" widths={[264, 420]} middleLabel="Questions that are set aside" lastLabel="The question">
	{#snippet middle()}
		<div class="filters">
			<h1 class="mr-auto text-[16px]!">Set aside: {figure(inAll)}</h1>
			{#if data.loads.length > 1}<select
					class="select"
					aria-label="Load"
					value={data.from === null ? '' : String(data.from)}
					onchange={(event) => show(event.currentTarget.value)}
					><option value="">from any load</option>{#each data.loads as load (load.id)}<option value={String(load.id)}
							>{load.fileName} ({figure(load.aside)})</option
						>{/each}</select
				>{/if}
			<a class="word text-[13px]" href={here}>all loads</a>
		</div>
		{#if list.total}<Rows
				source={list}
				chosen={chosen?.id ?? null}
				{choose}
				label="Questions that are set aside"
				columns="18px minmax(0, 1fr) 110px minmax(0, 1.3fr) 150px"
				narrow="18px minmax(0, 1fr) minmax(0, 1fr) 100px"
			>
				{#snippet head()}<span role="columnheader"
						><input
							type="checkbox"
							aria-label="Select all that are listed"
							disabled={!data.mayChange || !list.total}
							checked={selection.allSelected}
							onchange={(event) => selection.selectAll(event.currentTarget.checked)}
						/></span
					><span role="columnheader">Question</span><span class="roomy" role="columnheader">Kind</span><span
						role="columnheader">Why it is kept out</span
					><span role="columnheader">Came in</span>{/snippet}
				{#snippet line(row: AsideRow)}
					<span role="cell" class="flex items-center"
						><input
							type="checkbox"
							aria-label="Select {row.title}"
							disabled={!data.mayChange}
							checked={selection.isSelected(row.id)}
							onclick={(event) => {
								event.stopPropagation();
								selection.click(list.placeOf(row.id), event.currentTarget.checked, event.shiftKey, (place) =>
									list.at(place)
								);
							}}
						/></span
					>
					<span class="cut" role="cell" title={row.title}>{row.title || '(no title)'}</span>
					<span class="roomy mute cut" role="cell">{kindName(row.kind)}</span>
					<span class="cut" role="cell" title={row.why ?? ''}
						>{#if row.broken}<Mark severity="broken" word={row.why ?? 'broken'} />{:else}<Mark
								severity="whole"
								word="put right"
							/>{/if}</span
					>
					<span class="mute cut" role="cell" title="{row.fileName}, {pathText(pathOfKey(row.category))}"
						>{row.fileName}</span
					>
				{/snippet}
			</Rows>{:else}<p class="mute p-5">
				Nothing is set aside in this course. What a load keeps out comes here with its reasons, and stays until somebody
				puts it right or leaves it out.
			</p>{/if}
	{/snippet}
	{#snippet last()}
		{#if seen}
			{@const { row, question } = seen}
			<Staged
				shown={question}
				number={row.number}
				courseId={data.course.id}
				mayChange={data.mayChange}
				{busy}
				{failure}
				mend={(rule, all) => act({ do: 'mend', rule, ...(all ? {} : { ids: [row.id] }) })}
				edit={(edited) => act({ do: 'edit', id: row.id, version: question.version, question: edited })}
			/>
		{/if}
	{/snippet}
</Columns>
{#if data.mayChange}<SettleBar
		{selection}
		{list}
		courseId={data.course.id}
		loads={data.loads}
		from={data.from}
		settled={(isGone) => {
			if (chosen && isGone(chosen.id)) chosen = null;
		}}
	/>{/if}
