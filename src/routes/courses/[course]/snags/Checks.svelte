<script lang="ts">
	import { goto } from '$app/navigation';
	import type { SnagDay } from '$lib/server/snags/days';
	import type { SnagCount, SnagPlace } from '$lib/server/snags/snags';
	import type { Bars } from '$lib/ui/chart';
	import Chart from '$lib/ui/Chart.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import { count, figure } from '$lib/ui/words';
	import { ruleTitle } from '$lib/ui/rule';

	/** The checks that speak, the worst first, each with the number of questions. */
	let {
		counts,
		places,
		chosen,
		findings,
		waived,
		isWaived,
		days,
		reports
	}: {
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

	const groups = [
		{ severity: 'broken', name: 'Broken', says: 'cannot be delivered or scored' },
		{ severity: 'doubtful', name: 'Doubtful', says: 'probably wrong' },
		{ severity: 'untidy', name: 'Untidy', says: 'works, and reads badly' }
	] as const;
</script>

<h1 class="text-[16px]!">Snags <span class="mute font-normal">{count(findings, 'finding')}</span></h1>
{#each groups as { severity, name, says } (severity)}
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
				onclick={() => goto(`?check=${rule}`, { keepFocus: true, noScroll: true })}
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
{#if places.length}<div class="mt-6"><Chart {bars} label="Open snags by category" /></div>{/if}

<style>
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
