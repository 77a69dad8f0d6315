<script lang="ts">
	import { visible } from '$core/markup/visible';
	import type { StoredQuestion } from '$lib/server/banks/banks';
	import Findings from '$lib/ui/Findings.svelte';
	import QuestionView from '$lib/ui/QuestionView.svelte';
	import Source from '$lib/ui/Source.svelte';
	import Tabs from '$lib/ui/Tabs.svelte';
	import { count, pathText } from '$lib/ui/words';
	import About from './About.svelte';

	/** A question of a bank: as a student sees it, to be tried, its source, and what is known of it. */
	let { stored, courseId, place }: { stored: StoredQuestion; courseId: number; place: string } = $props();

	let tab = $state<'question' | 'try' | 'source' | 'about'>('question');
	const tabs = [
		{ value: 'question', name: 'Question' },
		{ value: 'try', name: 'Try it' },
		{ value: 'source', name: 'Source' },
		{ value: 'about', name: 'About' }
	] as const;
</script>

<p class="mute mb-2 flex justify-between gap-3 text-[13px]">
	<span class="cut">{pathText(stored.category)}</span><span class="whitespace-nowrap"
		>{place} <kbd>k</kbd> <kbd>j</kbd></span
	>
</p>
<Tabs tabs={[...tabs]} bind:value={tab} label="The question">
	{#snippet beside()}{stored.question.points === null ? '' : count(stored.question.points, 'point')}{/snippet}
	{#snippet panel(chosen)}
		{#if chosen === 'question' || chosen === 'try'}
			<h2 class="mb-2">{visible(stored.question.title)}</h2>
			<QuestionView
				question={stored.question}
				{courseId}
				mode={chosen === 'try' ? 'try' : 'key'}
				words={stored.reports.flatMap((report) => report.words)}
			/>
			{#if chosen === 'question' && stored.reports.length}
				<div class="mt-5"><Findings findings={stored.reports} /></div>
				<a
					class="word text-[13px]"
					href="/courses/{courseId}/snags?check={stored.reports[0]!.rule}&question={stored.id}">Deal with it on Snags</a
				>
			{/if}
		{:else if chosen === 'source'}
			<Source
				source={stored.source}
				file={stored.question.source?.file ?? ''}
				first={stored.question.source?.line ?? 1}
				lit={[...new Set(stored.reports.flatMap((report) => report.line ?? []))]}
			/>
		{:else}<About {stored} {courseId} />{/if}
	{/snippet}
</Tabs>
