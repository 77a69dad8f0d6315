<script lang="ts">
	import { enhance } from '$app/forms';
	import { page } from '$app/state';
	import { mendTitle } from '$core/checks';
	import { latest } from '$lib/ui/latest';
	import Mark from '$lib/ui/Mark.svelte';
	import { Pages, pagesFrom, type Page } from '$lib/ui/pages.svelte';
	import Rows from '$lib/ui/Rows.svelte';
	import { count, figure } from '$lib/ui/words';
	import { untrack } from 'svelte';
	import Checking from './Checking.svelte';
	import Checks from './Checks.svelte';
	import { ruleTitle } from '$lib/ui/rule';
	import type { ShownSnag } from './snag';
	import PlaceSnags from './PlaceSnags.svelte';
	import SnagPanel from './SnagPanel.svelte';

	let { data, form } = $props();
	type Row = (typeof data.page.rows)[number] & { id: number };
	let chosen = $state<number | null>(null);
	let shown = $state<ShownSnag | null>(null);

	const numbered = ({ rows, ...rest }: typeof data.page): Page<Row> => ({
		...rest,
		rows: rows.map((snag) => ({ ...snag, id: snag.questionId }))
	});
	const snags = $derived.by(() => {
		const check = data.check;
		const fetchPage = pagesFrom<Row>(
			(from) => `/courses/${data.course.id}/snags/rows?check=${encodeURIComponent(check)}&from=${from}`
		);
		return new Pages<Row>(numbered(data.page), data.pageSize, async (from) => {
			const found = await fetchPage(from);
			return found && numbered(found);
		});
	});
	const fetchShown = latest(async (id: number, rule: string) => {
		const answer = await fetch(`/courses/${data.course.id}/snags/preview?question=${id}&check=${rule}`);
		return answer.ok ? ((await answer.json()) as ShownSnag) : undefined;
	});
	async function open(id: number, rule: string) {
		const found = await fetchShown(id, rule);
		if (found !== null) shown = found ?? null;
	}
	function choose(snag: Row) {
		chosen = snag.id;
		void open(snag.id, data.check);
	}
	$effect(() => {
		const asked = Number(page.url.searchParams.get('question')) || null;
		const first = numbered(data.page).rows;
		const rule = data.check;
		const here = snags;
		untrack(() => {
			if (chosen === null || here.placeOf(chosen) < 0)
				chosen = first.find(({ id }) => id === asked)?.id ?? first[0]?.id ?? null;
			if (chosen) void open(chosen, rule);
			else shown = null;
		});
	});
	/** What has been mended of this check since one came here. */
	let mended = $state<{ check: string; sum: number }>({ check: '', sum: 0 });
	$effect(() => {
		const now = form;
		if (!now || !('mended' in now) || now.mended === undefined) return;
		const more = now.mended;
		untrack(() => {
			mended = { check: data.check, sum: (mended.check === data.check ? mended.sum : 0) + more };
		});
	});
	const said = $derived.by(() => {
		if (!form) return '';
		if ('aside' in form && form.aside !== undefined)
			return `“${form.kept}” stays; ${count(form.aside, 'repeat')} set aside.`;
		if ('mended' in form && form.mended !== undefined)
			return `${count(form.mended, 'question')} mended and checked again${mended.sum > form.mended ? `, ${figure(mended.sum)} since you came here` : ''}.${form.left}`;
		return 'message' in form ? (form.message ?? '') : '';
	});
	const snag = $derived(snags.at(snags.placeOf(chosen)));
</script>

<svelte:head><title>Snags · {data.course.name} · Yarn Barrow</title></svelte:head>
{#if data.checking}<Checking checking={data.checking} mayChange={data.mayChange} />{/if}
{#if !data.counts.length}
	<div class="sheet">
		<h1>Snags</h1>
		<p class="mt-2"><Mark severity="whole" word="No open snags in this course." /></p>
		{#if said}<p class="notice whole mt-4" role="status">{said}</p>{/if}
	</div>
{:else}
	<div class="columns">
		<section class="column" aria-label="Checks">
			<Checks
				counts={data.counts}
				places={data.places}
				chosen={data.check}
				findings={data.waiting.snags + data.placeSnags}
			/>
		</section>
		{#if data.placed.length}<PlaceSnags findings={data.placed} courseId={data.course.id} />{:else}
			<section class="column middle" aria-label="Questions of the check">
				<div class="filters">
					<h2 class="mr-auto">{ruleTitle(data.check)} <span class="mute font-normal">{figure(snags.total)}</span></h2>
					{#if data.mayChange && data.mendable}
						<form method="POST" action="?/mend" use:enhance>
							<input type="hidden" name="check" value={data.check} /><button
								class="button ghost small"
								title={mendTitle(data.check)}>Mend all {figure(data.mendable)}</button
							>
						</form>
					{/if}
				</div>
				{#if said}<p class="notice {form && 'message' in form ? 'broken' : 'whole'} mx-4" role="status">
						{said}
						{#if form && 'aside' in form && form.aside}<a class="word" href="/courses/{data.course.id}/loads/aside"
								>Look at them, or take them in again</a
							>{/if}
					</p>{/if}
				<Rows source={snags} {chosen} {choose} label="Questions" columns="minmax(0, 1fr)" height={74} follow>
					{#snippet head()}<span role="columnheader">Question</span>{/snippet}
					{#snippet line(snag: Row)}
						<span role="cell" class="min-w-0">
							<span class="mute cut block text-[12.5px]">{snag.bank}{snag.category ? ` › ${snag.category}` : ''}</span>
							<b class="cut block">{snag.title}</b>
							<span class="mute cut block text-[13px]" title={snag.message}>{snag.message}</span>
						</span>
					{/snippet}
				</Rows>
			</section>
			<section class="column paper" aria-label="The snag">
				{#if shown && snag}<SnagPanel
						{shown}
						{snag}
						check={data.check}
						course={data.course}
						mayChange={data.mayChange}
					/>{/if}
			</section>
		{/if}
	</div>
{/if}

<style>
	.columns {
		grid-template-columns: 264px minmax(0, 1fr) 432px;
	}
	@media (max-width: 1120px) {
		.columns {
			grid-template-columns: 210px minmax(0, 1fr) 340px;
		}
	}
</style>
