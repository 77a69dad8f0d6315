<script lang="ts">
	import type { SnagDay } from '$lib/server/snags/days';
	import type { Head, Order } from '$lib/server/snags/heads';
	import type { SnagCount, SnagPlace } from '$lib/server/snags/snags';
	import type { Bars } from '$lib/ui/chart';
	import Chart from '$lib/ui/Chart.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import Segments from '$lib/ui/Segments.svelte';
	import { count, figure } from '$lib/ui/words';
	import { ruleTitle } from '$lib/ui/rule';
	import Heads from './Heads.svelte';
	import type { SnagsView } from './snags.svelte';

	/** What snags are gone through by: the checks that speak, the worst first, or categories, questions or quizzes. */
	let {
		view,
		order,
		heads,
		counts,
		places,
		chosen,
		findings,
		waived,
		isWaived,
		days,
		reports
	}: {
		view: SnagsView;
		order: Order;
		heads: Head[];
		counts: SnagCount[];
		places: SnagPlace[];
		chosen: string;
		findings: number;
		/** How many waivers there are, and whether they are shown. */
		waived: number;
		isWaived: boolean;
		days: SnagDay[];
		/** Where the reports are. */
		reports: string;
	} = $props();

	/** Open snags over the last days, one line a day. */
	const over = $derived<Bars>({
		of: 'Day',
		lines: days.map(({ day }) => day),
		parts: (
			[
				['broken', 'madder'],
				['doubtful', 'weld'],
				['untidy', 'ink3']
			] as const
		)
			.map(([severity, colour]) => ({ name: severity, colour, values: days.map((of) => of[severity]) }))
			.filter(({ values }) => values.some(Boolean))
	});

	/** What was done about them over the same days. */
	const done = $derived<Bars>({
		of: 'Day',
		lines: days.map(({ day }) => day),
		parts: (
			[
				['mended', 'lichen'],
				['waived', 'woad']
			] as const
		)
			.map(([name, colour]) => ({ name, colour, values: days.map((of) => of[name]) }))
			.filter(({ values }) => values.some(Boolean))
	});

	const bars = $derived<Bars>({
		of: 'Category',
		lines: places.map(({ name }) => name),
		parts: (
			[
				['broken', 'madder'],
				['doubtful', 'weld'],
				['untidy', 'ink3']
			] as const
		)
			.map(([severity, colour]) => ({ name: severity, colour, values: places.map((place) => place[severity]) }))
			.filter(({ values }) => values.some(Boolean))
	});

	const orders: { value: Order; name: string }[] = [
		{ value: 'check', name: 'Check' },
		{ value: 'category', name: 'Category' },
		{ value: 'question', name: 'Question' },
		{ value: 'quiz', name: 'Quiz' }
	];
	/** Begins anew by something else, with nothing left of what was asked for. */
	const goBy = (by: Order) =>
		view.show({ by: by === 'check' ? null : by, check: null, bank: null, category: null, question: null, quiz: null });
	const groups = [
		{ severity: 'broken', name: 'Broken', says: 'cannot be delivered or scored' },
		{ severity: 'doubtful', name: 'Doubtful', says: 'probably wrong' },
		{ severity: 'untidy', name: 'Untidy', says: 'works, and reads badly' }
	] as const;
</script>

<h1 class="text-[16px]!">Snags <span class="mute font-normal">{count(findings, 'finding')}</span></h1>
<div class="orders mt-2"><Segments value={order} choices={orders} label="Go through them by" change={goBy} /></div>
{#if order !== 'check'}<div class="mt-3"><Heads {heads} of={order} show={(asks) => view.show(asks)} /></div>{/if}
{#each order === 'check' ? groups : [] as { severity, name, says } (severity)}
	{@const inGroup = counts.filter((counted) => counted.severity === severity)}
	{#if inGroup.length}
		<h2 class="mt-4 text-[14px]!">
			<Mark {severity} word={name} />
			<span class="faint text-[12.5px] font-normal">{says}</span>
		</h2>
		{#each inGroup as { rule, questions } (rule)}
			<button
				type="button"
				class="check"
				class:chosen={rule === chosen && !isWaived}
				aria-pressed={rule === chosen && !isWaived}
				onclick={() => view.show({ check: rule })}
				><span>{ruleTitle(rule)}</span><span>{figure(questions)}</span></button
			>
		{/each}
	{/if}
{/each}
<p class="mt-4 flex gap-4 text-[13px]">
	<a class="word" href="?waived=1" aria-current={isWaived ? 'page' : undefined}>Waived {figure(waived)}</a>
	<a class="word" href={reports}>Report</a>
</p>
{#if days.length > 1}<div class="mt-6"><Chart bars={over} label="Open snags by day" /></div>{/if}
{#if done.parts.length}<div class="mt-6"><Chart bars={done} label="Mended and waived by day" /></div>{/if}
{#if places.length && order !== 'category'}<div class="mt-6"><Chart {bars} label="Open snags by category" /></div>{/if}

<style>
	/* four words side by side in a narrow column */
	.orders :global(.segment) {
		padding-inline: 6px;
		font-size: 12.5px;
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
</style>
