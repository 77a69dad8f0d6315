<script lang="ts">
	import type { SnagFilter } from '$lib/server/snags/filter';
	import type { SnagCount } from '$lib/server/snags/snags';
	import { ruleTitle } from '$lib/ui/rule';
	import { ago } from '$lib/ui/words';

	/** Which of the snags are listed: how bad, since when, of which bank or check. */
	let {
		filter,
		order,
		counts,
		banks,
		lastVisit,
		show
	}: {
		filter: SnagFilter;
		order: string;
		counts: SnagCount[];
		banks: { id: number; name: string }[];
		/** When one looked at the snags last before this visit. */
		lastVisit: string | null;
		show: (asks: Record<string, string | null>) => void;
	} = $props();

	const day = 24 * 60 * 60 * 1000;
	/** A moment that stays the same for the whole day, so that an address is good for more than a moment. */
	const daysBack = (days: number) => new Date(Math.floor(Date.now() / day) * day - days * day).toISOString();
	const since = $derived([
		...(lastVisit ? [{ value: lastVisit, name: `new since I was here (${ago(lastVisit)})` }] : []),
		{ value: daysBack(0), name: 'new today' },
		{ value: daysBack(7), name: 'new in the last week' },
		{ value: daysBack(30), name: 'new in the last month' }
	]);
	const known = $derived(filter.since === null || since.some(({ value }) => value === filter.since));
</script>

<div class="restrict">
	{#if order === 'check' && banks.length > 1}
		<select
			class="select"
			aria-label="Bank"
			value={filter.bank === null ? '' : String(filter.bank)}
			onchange={(event) => show({ bank: event.currentTarget.value || null, category: null })}
		>
			<option value="">all banks</option>
			{#each banks as { id, name } (id)}<option value={String(id)}>{name}</option>{/each}
		</select>
	{/if}
	{#if order !== 'check'}
		<select
			class="select"
			aria-label="Check"
			value={filter.check ?? ''}
			onchange={(event) => show({ check: event.currentTarget.value || null })}
		>
			<option value="">all checks</option>
			{#each counts as { rule } (rule)}<option value={rule}>{ruleTitle(rule)}</option>{/each}
		</select>
		<select
			class="select"
			aria-label="How bad"
			value={filter.severity ?? ''}
			onchange={(event) => show({ severity: event.currentTarget.value || null })}
		>
			<option value="">broken, doubtful and untidy</option>
			{#each ['broken', 'doubtful', 'untidy'] as severity (severity)}<option>{severity}</option>{/each}
		</select>
	{/if}
	<select
		class="select"
		aria-label="Since when"
		value={filter.since ?? ''}
		onchange={(event) => show({ since: event.currentTarget.value || null })}
	>
		<option value="">old and new</option>
		{#each since as { value, name } (name)}<option {value}>{name}</option>{/each}
		{#if !known}<option value={filter.since}>new since {filter.since!.slice(0, 10)}</option>{/if}
	</select>
</div>

<style>
	.restrict {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
		padding: 0 18px 8px;
	}
	.restrict .select {
		width: auto;
		max-width: 100%;
		flex: 1 1 130px;
		min-width: 0;
	}
</style>
