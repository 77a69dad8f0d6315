<script lang="ts">
	import Mark from './Mark.svelte';
	import { ruleTitle, ruleWhy } from './rule';
	import type { Severity } from '$core/reports/report';

	interface Finding {
		rule: string;
		severity: Severity;
		message: string;
		place: string;
		line: number | null;
	}
	/** What is said about one thing: each finding with why it matters and its place in the source. */
	let { findings }: { findings: Finding[] } = $props();
</script>

{#each findings as finding, at (at)}
	<div class="notice {finding.severity}">
		<b><Mark severity={finding.severity} word={ruleTitle(finding.rule)} /></b>
		<p>{finding.message}</p>
		{#if ruleWhy(finding.rule)}<p class="mute text-[13px]">{ruleWhy(finding.rule)}</p>{/if}
		{#if finding.place}<p class="mono faint">{finding.place}{finding.line ? `:${finding.line}` : ''}</p>{/if}
	</div>
{/each}
