<script lang="ts">
	import { page } from '$app/state';
	import Columns from '$lib/ui/Columns.svelte';
	import { latest } from '$lib/ui/latest';
	import Mark from '$lib/ui/Mark.svelte';
	import { tellDone } from '$lib/ui/doing';
	import { tell } from '$lib/ui/toasts';
	import { untrack } from 'svelte';
	import Checking from './Checking.svelte';
	import Listed from './Listed.svelte';
	import Mending from './Mending.svelte';
	import Checks from './Checks.svelte';
	import type { ShownSnag } from './snag';
	import PlaceSnags from './PlaceSnags.svelte';
	import SnagPanel from './SnagPanel.svelte';
	import { SnagsView, type ListedSnag } from './snags.svelte';
	import Waived from './Waived.svelte';
	import { isNoShortcut } from '$lib/ui/keys';

	let { data, form } = $props();
	let chosen = $state<number | null>(null);
	/** The place of what was chosen last: what comes there once that is mended is next. */
	let at = 0;
	let shown = $state<ShownSnag | null>(null);

	const view = untrack(() => new SnagsView(data.course.id));
	// what the page draws first is what it was sent
	untrack(() => view.take(data.page, data.pageSize, data.filter));
	let taken = untrack(() => data.page);
	const fetchShown = latest(async (id: number, rule: string) => {
		const answer = await fetch(`/courses/${data.course.id}/snags/preview?question=${id}&check=${rule}`);
		return answer.ok ? ((await answer.json()) as ShownSnag) : undefined;
	});
	async function open({ questionId, rule }: ListedSnag) {
		const found = await fetchShown(questionId, rule);
		if (found !== null) shown = found ?? null;
	}
	function choose(snag: ListedSnag) {
		chosen = snag.id;
		at = view.pages.placeOf(snag.id);
		void open(snag);
	}
	$effect.pre(() => {
		if (data.page === taken) return;
		taken = data.page;
		view.take(data.page, data.pageSize, data.filter, at);
	});
	let shownList = '';
	const asked = $derived(Number(page.url.searchParams.get('at')) || null);
	$effect(() => {
		const question = asked;
		const { pages } = view;
		untrack(() => {
			const list = JSON.stringify([data.order, data.filter]);
			if (shownList !== list) [shownList, at] = [list, 0];
			const named = pages.find((snag) => snag.questionId === question);
			const next = pages.at(pages.placeOf(chosen)) ?? named ?? pages.at(Math.min(at, pages.total - 1)) ?? pages.at(0);
			if (next) choose(next);
			else [chosen, shown] = [null, null];
		});
	});
	function done(now: NonNullable<typeof form>) {
		if (!('told' in now) || now.told === undefined) return;
		if ('deedId' in now && now.deedId) tellDone(data.course.id, { deedId: now.deedId, words: now.told }, view.again);
		else tell(now.told);
	}
	$effect(() => {
		const now = form;
		if (now) untrack(() => done(now));
	});
	/** Goes to the next snag: of this list, or the first of the next check, category, question or quiz. */
	async function next() {
		const after = await view.pages.load(view.pages.placeOf(chosen) + 1);
		if (after) return choose(after);
		if (data.order !== 'check') {
			const here = data.heads.findIndex(({ asks }) =>
				Object.entries(asks).every(
					([name, value]) => String(data.filter[name as keyof typeof data.filter] ?? '') === value
				)
			);
			const following = data.heads[here + 1] ?? data.heads[0];
			if (following) await view.show(following.asks);
			return;
		}
		const here = data.counts.findIndex(({ rule }) => rule === data.check);
		const following = data.counts[here + 1] ?? data.counts[0];
		if (following && following.rule !== data.check) await view.show({ check: following.rule });
	}
	function keys(event: KeyboardEvent) {
		if (isNoShortcut(event)) return;
		if (event.key === 'n') void next();
		else if (event.key === 'm') document.querySelector<HTMLButtonElement>('[data-mend-this]')?.click();
		else if (event.key === 'M') document.querySelector<HTMLButtonElement>('[data-mend-all]')?.click();
		else return;
		event.preventDefault();
	}
	const refused = $derived(view.refused || (form && 'message' in form ? (form.message ?? '') : ''));
	const snag = $derived(view.pages.at(view.pages.placeOf(chosen)));
	const isEmpty = $derived(!data.counts.length && !data.isWaived && !data.waivers.length);
</script>

<svelte:window onkeydown={keys} />
<svelte:head><title>Snags · {data.course.name} · Yarn Barrow</title></svelte:head>
{#if data.checking}<Checking checking={data.checking} mayChange={data.mayChange} />{/if}
{#if data.mending}<Mending mending={data.mending} {view} mayChange={data.mayChange} />{/if}
{#snippet checks()}
	<Checks
		{view}
		order={data.order}
		heads={data.heads}
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
{#snippet list()}
	<Listed {data} {view} {chosen} {choose} {refused} />
{/snippet}
{#if isEmpty}
	<div class="sheet">
		<h1>Snags</h1>
		<p class="mt-2"><Mark severity="whole" word="No open snags in this course." /></p>
	</div>
{:else if data.isWaived || !data.counts.length}
	<Columns
		name="snags"
		widths={[264, 432]}
		first={checks}
		firstLabel="Checks"
		middleLabel="What is waived"
		lastLabel="About it"
	>
		{#snippet middle()}<Waived waivers={data.waivers} courseId={data.course.id} mayChange={data.mayChange} />{/snippet}
		{#snippet last()}<p class="mute">
				What is waived is found still, and counts nowhere. Taken back, it stands among the open snags again.
			</p>{/snippet}
	</Columns>
{:else if data.order === 'check' && data.placed.length}<PlaceSnags
		findings={data.placed}
		courseId={data.course.id}
		first={checks}
		mends={data.mayChange && data.mendsPlaces}
	/>{:else}
	<Columns
		name="snags"
		widths={[264, 432]}
		first={checks}
		firstLabel="Checks"
		middleLabel="Snags that are listed"
		lastLabel="The snag"
		middle={list}
	>
		{#snippet last()}
			{#if shown && snag}<SnagPanel {shown} {snag} {view} mayChange={data.mayChange} />{/if}
		{/snippet}
	</Columns>
{/if}
