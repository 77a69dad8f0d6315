<script lang="ts">
	import { enhance } from '$app/forms';
	import { goto, invalidateAll } from '$app/navigation';
	import { page } from '$app/state';
	import { mendTitle } from '$core/checks';
	import Columns from '$lib/ui/Columns.svelte';
	import { latest } from '$lib/ui/latest';
	import Mark from '$lib/ui/Mark.svelte';
	import { Pages, pagesFrom, type Page } from '$lib/ui/pages.svelte';
	import Rows from '$lib/ui/Rows.svelte';
	import { tellDone } from '$lib/ui/doing';
	import { tell } from '$lib/ui/toasts';
	import { count, figure } from '$lib/ui/words';
	import { untrack } from 'svelte';
	import Checking from './Checking.svelte';
	import Checks from './Checks.svelte';
	import { ruleTitle } from '$lib/ui/rule';
	import type { ShownSnag } from './snag';
	import PlaceSnags from './PlaceSnags.svelte';
	import SnagPanel from './SnagPanel.svelte';
	import Waived from './Waived.svelte';
	import { isNoShortcut } from '$lib/ui/keys';

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
	let mended = { check: '', sum: 0 };
	function done(now: NonNullable<typeof form>) {
		if ('told' in now && now.told !== undefined) {
			if ('deedId' in now && now.deedId)
				tellDone(data.course.id, { deedId: now.deedId, words: now.told }, invalidateAll);
			else tell(now.told);
		}
		if (!('mended' in now) || now.mended === undefined) return;
		mended = { check: data.check, sum: (mended.check === data.check ? mended.sum : 0) + now.mended };
		const more = mended.sum > now.mended ? `, ${figure(mended.sum)} since you came here` : '';
		const words = `${count(now.mended, 'question')} mended and checked again${more}.${now.left}`;
		if ('deedId' in now && now.deedId) tellDone(data.course.id, { deedId: now.deedId, words }, invalidateAll);
		else tell(words);
	}
	$effect(() => {
		const now = form;
		if (now) untrack(() => done(now));
	});
	/** Goes to the next snag: of this check, or the first of the next one. */
	async function next() {
		const after = await snags.load(snags.placeOf(chosen) + 1);
		if (after) return choose(after);
		const at = data.counts.findIndex(({ rule }) => rule === data.check);
		const following = data.counts[at + 1] ?? data.counts[0];
		if (following && following.rule !== data.check) await goto(`?check=${following.rule}`, { keepFocus: true });
	}
	function keys(event: KeyboardEvent) {
		if (isNoShortcut(event)) return;
		if (event.key === 'n') void next();
		else if (event.key === 'm') document.querySelector<HTMLButtonElement>('[data-mend-this]')?.click();
		else return;
		event.preventDefault();
	}
	const refused = $derived(form && 'message' in form ? (form.message ?? '') : '');
	const snag = $derived(snags.at(snags.placeOf(chosen)));
</script>

<svelte:window onkeydown={keys} />
<svelte:head><title>Snags · {data.course.name} · Yarn Barrow</title></svelte:head>
{#if data.checking}<Checking checking={data.checking} mayChange={data.mayChange} />{/if}
{#if !data.counts.length && !data.isWaived && !data.waivers.length}
	<div class="sheet">
		<h1>Snags</h1>
		<p class="mt-2"><Mark severity="whole" word="No open snags in this course." /></p>
	</div>
{:else}
	{#snippet checks()}
		<Checks
			counts={data.counts}
			places={data.places}
			chosen={data.check}
			findings={data.waiting.snags + data.placeSnags}
			waived={data.waivers.length}
			isWaived={data.isWaived}
			days={data.days}
			reports={`/courses/${data.course.id}/snags/report`}
		/>
	{/snippet}
	{#if data.isWaived || !data.counts.length}
		<Columns
			name="snags"
			widths={[264, 432]}
			first={checks}
			firstLabel="Checks"
			middleLabel="What is waived"
			lastLabel="About it"
		>
			{#snippet middle()}<Waived
					waivers={data.waivers}
					courseId={data.course.id}
					mayChange={data.mayChange}
				/>{/snippet}
			{#snippet last()}<p class="mute">
					What is waived is found still, and counts nowhere. Taken back, it stands among the open snags again.
				</p>{/snippet}
		</Columns>
	{:else if data.placed.length}<PlaceSnags findings={data.placed} courseId={data.course.id} first={checks} />{:else}
		<Columns
			name="snags"
			widths={[264, 432]}
			first={checks}
			firstLabel="Checks"
			middleLabel="Questions of the check"
			lastLabel="The snag"
		>
			{#snippet middle()}
				<div class="filters">
					<h2 class="mr-auto">{ruleTitle(data.check)} <span class="mute font-normal">{figure(snags.total)}</span></h2>
					{#if data.mayChange && data.mendable}
						<form method="POST" action="?/mend" use:enhance>
							<input type="hidden" name="check" value={data.check} /><button
								class="btn btn-sm preset-outlined-brand"
								title={mendTitle(data.check)}>Mend all {figure(data.mendable)}</button
							>
						</form>
					{/if}
				</div>
				{#if refused}<p class="notice broken mx-4" role="alert">{refused}</p>{/if}
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
			{/snippet}
			{#snippet last()}
				{#if shown && snag}<SnagPanel
						{shown}
						{snag}
						check={data.check}
						course={data.course}
						mayChange={data.mayChange}
					/>{/if}
			{/snippet}
		</Columns>
	{/if}
{/if}
