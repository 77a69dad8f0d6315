<script lang="ts">
	import { mendTitle } from '$core/checks';
	import Mark from '$lib/ui/Mark.svelte';
	import Rows from '$lib/ui/Rows.svelte';
	import { ruleTitle } from '$lib/ui/rule';
	import { figure } from '$lib/ui/words';
	import type { PageData } from './$types';
	import QuizSnags from './QuizSnags.svelte';
	import Restrict from './Restrict.svelte';
	import type { ListedSnag, SnagsView } from './snags.svelte';

	/** The snags that are listed, with what they are narrowed by and the mend of all of them. */
	let {
		data,
		view,
		chosen,
		choose,
		refused
	}: {
		data: PageData;
		view: SnagsView;
		chosen: number | null;
		choose: (snag: ListedSnag) => void;
		refused: string;
	} = $props();

	/** Whether only some of what a check speaks of is listed. */
	const isPart = $derived(data.filter.bank !== null || data.filter.since !== null || data.filter.question !== null);
	const isMending = $derived(data.mending?.state === 'waiting' || data.mending?.state === 'running');
</script>

<div class="filters">
	<h2 class="mr-auto">
		{data.order === 'check' ? ruleTitle(data.check) : 'Snags'}
		<span class="mute font-normal">{figure(view.pages.total)}</span>
	</h2>
	{#if data.mayChange && data.mendable}
		<button
			type="button"
			class="btn btn-sm preset-outlined-brand"
			title={mendTitle(data.check) ?? 'Of each group one stays, and takes over what it lacks of the others'}
			data-mend-all
			disabled={view.busy || isMending}
			onclick={() => view.mend(data.check)}
			>{isPart ? 'Mend these' : 'Mend all'} {figure(data.mendable)} <kbd>M</kbd></button
		>
	{/if}
</div>
<Restrict
	filter={data.filter}
	order={data.order}
	counts={data.counts}
	banks={data.banks}
	lastVisit={data.lastVisit}
	show={(asks) => view.show(asks)}
/>
{#if refused}<p class="notice broken mx-4 mb-2" role="alert">{refused}</p>{/if}
{#if data.placed.length}<QuizSnags findings={data.placed} courseId={data.course.id} />{/if}
{#if view.pages.total}
	<Rows source={view.pages} {chosen} {choose} label="Snags" columns="minmax(0, 1fr)" height={74} follow>
		{#snippet head()}<span role="columnheader">Question</span>{/snippet}
		{#snippet line(listed: ListedSnag)}
			<span role="cell" class="min-w-0">
				<span class="mute cut block text-[12.5px]">{listed.bank}{listed.category ? ` › ${listed.category}` : ''}</span>
				<b class="cut block">{listed.title}</b>
				<span class="mute cut block text-[13px]" title={listed.message}
					>{#if data.order !== 'check'}<Mark
							severity={listed.severity}
							word={ruleTitle(listed.rule)}
						/>{:else}{listed.message}{/if}</span
				>
			</span>
		{/snippet}
	</Rows>
{:else}<p class="mute p-5">
		{data.placed.length ? 'None of its questions has a snag.' : 'Nothing fits what you asked for.'}
	</p>{/if}
