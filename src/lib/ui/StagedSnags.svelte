<script lang="ts">
	import { mendTitle } from '$core/checks';
	import type { StagedQuestion } from '$lib/server/loads/review';
	import Findings from './Findings.svelte';
	import Mark from './Mark.svelte';
	import { ruleTitle } from './rule';
	import WaiveStaged from './WaiveStaged.svelte';

	/** The snags of a question of a load with their mends, and what was waived of it. */
	let {
		shown,
		mends,
		mayChange,
		busy,
		mend,
		waive,
		unwaive,
		countOf
	}: {
		shown: StagedQuestion;
		/** The rules that can be mended. */
		mends: readonly string[];
		mayChange: boolean;
		busy: boolean;
		mend: (rule: string, all: boolean) => void;
		waive?: ((rule: string, reason: string, all: boolean) => void) | undefined;
		unwaive?: ((rule: string) => void) | undefined;
		countOf?: ((rule: string) => number) | undefined;
	} = $props();
</script>

{#if shown.reports.length}<Findings findings={shown.reports} />{:else if !shown.waived.length}<p>
		<Mark severity="whole" word="No snags in this question." />
	</p>{/if}
{#if mayChange}
	{#each mends as rule (rule)}<p class="mt-2 flex gap-2">
			<button
				type="button"
				class="btn btn-sm preset-filled-brand btn-long"
				disabled={busy}
				onclick={() => mend(rule, false)}>{mendTitle(rule)}</button
			><button type="button" class="btn btn-sm preset-outlined-brand" disabled={busy} onclick={() => mend(rule, true)}
				>in the whole load{countOf ? ` (${countOf(rule).toLocaleString('en')})` : ''}</button
			>
		</p>{/each}
	{#if waive && shown.reports.length && shown.question.kind !== 'unreadable'}
		{#key shown.id}<WaiveStaged
				rules={[...new Set(shown.reports.map(({ rule }) => rule))]}
				{busy}
				{waive}
				{countOf}
			/>{/key}
	{/if}
{/if}
{#if shown.waived.length}
	<h3 class="mt-4">Waived</h3>
	<ul>
		{#each shown.waived as { rule, message, reason, by } (rule)}<li class="py-1">
				<p class="flex items-baseline justify-between gap-3">
					<b class="text-[13px]">{ruleTitle(rule)}</b>
					{#if unwaive && mayChange}<button
							type="button"
							class="btn btn-sm preset-outlined-brand"
							disabled={busy}
							onclick={() => unwaive(rule)}>Take back</button
						>{/if}
				</p>
				<p class="mute text-[13px]">{message}</p>
				<p class="text-[13px]">{by}{reason ? `: ${reason}` : ''}</p>
			</li>{/each}
	</ul>
{/if}
