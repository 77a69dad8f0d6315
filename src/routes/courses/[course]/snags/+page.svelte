<script lang="ts">
	import { enhance } from '$app/forms';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { checkOf, mendTitle } from '$core/checks';
	import { mendFor } from '$core/checks/one';
	import { untrack } from 'svelte';
	import type { Question } from '$core/kinds';
	import type { StoredQuestion } from '$lib/server/banks/banks';
	import Checking from './Checking.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import QuestionView from '$lib/ui/QuestionView.svelte';
	import Rows from '$lib/ui/Rows.svelte';
	import Source from '$lib/ui/Source.svelte';
	import { count, figure, ruleWords } from '$lib/ui/words';

	let { data, form } = $props();
	type Row = (typeof data.rows)[number] & { id: number };
	interface Shown {
		stored: StoredQuestion;
		preview: { before: Question; after: Question; version: number } | null;
	}
	let chosen = $state<number | null>(null);
	let shown = $state<Shown | null>(null);
	let asked = 0;
	let tab = $state<'mend' | 'question' | 'source'>('mend');
	const names = { broken: 'Broken', doubtful: 'Doubtful', untidy: 'Untidy' } as const;
	const says = {
		broken: 'cannot be delivered or scored',
		doubtful: 'probably wrong',
		untidy: 'works, and reads badly'
	} as const;
	const rows = $derived(data.rows.map((row) => ({ ...row, id: row.questionId })));
	const check = $derived(checkOf(data.check));
	/** The mend of the check, where it fits the question that is shown. */
	const fitting = $derived(
		shown && check?.scope === 'many'
			? mendTitle(data.check)
			: shown
				? (mendFor(data.check, shown.stored.question)?.title ?? null)
				: null
	);
	const severity = $derived(data.counts.find((one) => one.rule === data.check)?.severity ?? 'untidy');
	const titleOf = (rule: string) =>
		checkOf(rule)?.title ?? ruleWords(rule).replace(/^./, (letter) => letter.toUpperCase());
	const inAll = $derived(data.counts.find((one) => one.rule === data.check)?.questions ?? 0);
	const row = $derived(rows.find((one) => one.id === chosen));
	const source = $derived(shown?.stored.question.source);

	async function fetchOne(id: number, rule: string) {
		asked += 1;
		const mine = asked;
		const answer = await fetch(`/courses/${data.course.id}/snags/preview?question=${id}&check=${rule}`);
		if (mine === asked) shown = answer.ok ? ((await answer.json()) as Shown) : null;
	}
	function choose(one: Row) {
		chosen = one.id;
		void fetchOne(one.id, data.check);
	}
	$effect(() => {
		const wanted = Number(page.url.searchParams.get('question')) || null;
		const list = rows;
		const rule = data.check;
		const now = list.some((one) => one.id === chosen)
			? chosen
			: list.some((one) => one.id === wanted)
				? wanted
				: (list[0]?.id ?? null);
		chosen = now;
		if (now) void fetchOne(now, rule);
		else shown = null;
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
	const changes = $derived(
		shown?.preview && JSON.stringify(shown.preview.before) !== JSON.stringify(shown.preview.after)
	);
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
			<h1 class="text-[16px]!">Snags <span class="mute font-normal">{count(data.waiting.snags, 'finding')}</span></h1>
			{#each ['broken', 'doubtful', 'untidy'] as const as group (group)}
				{@const inGroup = data.counts.filter((one) => one.severity === group)}
				{#if inGroup.length}
					<h2 class="mt-4 text-[14px]!">
						<Mark severity={group} word={names[group]} />
						<span class="faint text-[12.5px] font-normal">{says[group]}</span>
					</h2>
					{#each inGroup as one (one.rule)}
						<button
							type="button"
							class="check"
							class:chosen={one.rule === data.check}
							aria-pressed={one.rule === data.check}
							onclick={() => goto(`?check=${one.rule}`, { keepFocus: true, noScroll: true })}
							><span>{titleOf(one.rule)}</span><span>{figure(one.questions)}</span></button
						>
					{/each}
				{/if}
			{/each}
		</section>
		<section class="column middle" aria-label="Questions of the check">
			<div class="filters">
				<h2 class="mr-auto">{titleOf(data.check)} <span class="mute font-normal">{figure(inAll)}</span></h2>
				{#if data.mayChange && data.mendable}
					<form method="POST" action="?/mend" use:enhance>
						<input type="hidden" name="check" value={data.check} /><button class="button ghost small"
							>Mend all {figure(data.mendable)}</button
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
			{#if inAll > rows.length}<p class="mute mx-4 text-[13px]">
					The first {figure(rows.length)} of {figure(inAll)} are listed.
				</p>{/if}
			<Rows items={rows} {chosen} {choose} label="Questions" columns="minmax(0, 1fr)" height={74}>
				{#snippet head()}<span role="columnheader">Question</span>{/snippet}
				{#snippet line(one: Row)}
					<span role="cell" class="min-w-0">
						<span class="mute cut block text-[12.5px]">{one.bank}{one.category ? ` › ${one.category}` : ''}</span>
						<b class="cut block">{one.title}</b>
						<span class="mute cut block text-[13px]" title={one.message}>{one.message}</span>
					</span>
				{/snippet}
			</Rows>
		</section>
		<section class="column paper" aria-label="The snag">
			{#if shown && row}
				<h2><Mark {severity} word={titleOf(data.check)} /></h2>
				<p class="mt-1">{row.message}</p>
				{#if check}<p class="mute mt-1 text-[13px]">{check.why}</p>{/if}
				{#if data.check === 'exact-duplicate' && data.mayChange}<form
						method="POST"
						action="?/keep"
						use:enhance
						class="mt-2"
					>
						<input type="hidden" name="question" value={row.id} /><button class="button small"
							>Keep one, set {row.twins} aside</button
						>
						<span class="mute mt-1 block text-[13px]"
							>The one that a quiz uses stays, else the one that is verified, else the oldest; the others are set aside.</span
						>
					</form>{/if}
				<div class="tabs mt-4" role="tablist">
					{#if fitting}<button role="tab" type="button" aria-selected={tab === 'mend'} onclick={() => (tab = 'mend')}
							>The mend</button
						>{/if}
					<button
						role="tab"
						type="button"
						aria-selected={tab === 'question' || (tab === 'mend' && !fitting)}
						onclick={() => (tab = 'question')}>Question</button
					>
					<button role="tab" type="button" aria-selected={tab === 'source'} onclick={() => (tab = 'source')}
						>Source</button
					>
				</div>
				{#if tab === 'source'}
					<Source
						source={shown.stored.source}
						file={source?.file ?? ''}
						first={source?.line ?? 1}
						lit={[...new Set(shown.stored.reports.flatMap((report) => report.line ?? []))]}
					/>
				{:else if tab === 'mend' && fitting && shown.preview}
					<p class="mute mb-2">{fitting}.</p>
					<h3>Before</h3>
					<div class="frame">
						<QuestionView question={shown.preview.before} courseId={data.course.id} words={row.words} />
					</div>
					{#if changes}
						<h3 class="mt-4">After</h3>
						<div class="frame after"><QuestionView question={shown.preview.after} courseId={data.course.id} /></div>
						{#if data.mayChange}
							<form method="POST" action="?/mend" use:enhance class="mt-3 flex gap-2">
								<input type="hidden" name="check" value={data.check} /><input
									type="hidden"
									name="question"
									value={row.id}
								/><input type="hidden" name="version" value={shown.preview.version} />
								<button class="button small">Mend this</button>
								<a class="button small ghost" href="/courses/{data.course.id}/banks?bank={row.bankId}&question={row.id}"
									>Open it in its bank</a
								>
							</form>
						{/if}
					{:else}<p class="notice doubtful">
							Nothing can be mended safely here: it needs a person who knows what was meant.
						</p>{/if}
				{:else}
					<QuestionView question={shown.stored.question} courseId={data.course.id} words={row.words} />
					<p class="mt-4">
						<a class="button small ghost" href="/courses/{data.course.id}/banks?bank={row.bankId}&question={row.id}"
							>Open it in its bank</a
						>
					</p>
				{/if}
			{/if}
		</section>
	</div>
{/if}

<style>
	.columns {
		grid-template-columns: 264px minmax(0, 1fr) 432px;
	}
	.check {
		display: flex;
		justify-content: space-between;
		gap: 10px;
		width: 100%;
		padding: 5px 8px;
		border-bottom: 1px solid var(--line);
		text-align: left;
		cursor: pointer;
	}
	.frame {
		border: 1px solid var(--line2);
		border-radius: 6px;
		padding: 10px 12px;
	}
	.frame.after {
		border-color: var(--lichen);
	}
	@media (max-width: 1120px) {
		.columns {
			grid-template-columns: 210px minmax(0, 1fr) 340px;
		}
	}
</style>
