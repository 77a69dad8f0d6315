<script lang="ts">
	import { kindName, type Kind } from '$core/kinds';
	import type { Severity } from '$core/reports/report';
	import Chart from '$lib/ui/Chart.svelte';
	import type { Bars } from '$lib/ui/chart';
	import { ruleTitle } from '$lib/ui/rule';

	/** What a load held, as bars: its questions by kind, and what the checks and its reader said of them. */
	let {
		kinds,
		snags
	}: {
		kinds: { key: string; found: number }[];
		snags: { rule: string; severity: Severity; questions: number }[];
	} = $props();

	const most = 10;
	const byKind = $derived<Bars>({
		of: 'Kind',
		lines: kinds.map(({ key }) => kindName(key as Kind)),
		parts: [{ name: 'questions', colour: 'woad', values: kinds.map(({ found }) => found) }]
	});
	const shown = $derived(snags.slice(0, most));
	const dyes = { broken: 'madder', doubtful: 'weld', untidy: 'ink3' } as const;
	const byCheck = $derived<Bars>({
		of: 'Snag',
		lines: shown.map(({ rule }) => ruleTitle(rule)),
		parts: (['broken', 'doubtful', 'untidy'] as const)
			.map((severity) => ({
				name: severity,
				colour: dyes[severity],
				values: shown.map((snag) => (snag.severity === severity ? snag.questions : 0))
			}))
			.filter(({ values }) => values.some(Boolean))
	});
</script>

<div class="mt-6 grid grid-cols-2 items-start gap-8">
	{#if kinds.length}<Chart bars={byKind} label="Questions by kind" />{/if}
	{#if shown.length}<Chart bars={byCheck} label="Questions by snag" />{/if}
</div>
