<script lang="ts">
	import { visible } from '$core/markup/visible';
	import type { StoredQuestion } from '$lib/server/banks/banks';
	import EditStored from '$lib/ui/EditStored.svelte';
	import Findings from '$lib/ui/Findings.svelte';
	import { isNoShortcut } from '$lib/ui/keys';
	import QuestionView from '$lib/ui/QuestionView.svelte';
	import Source from '$lib/ui/Source.svelte';
	import Tabs from '$lib/ui/Tabs.svelte';
	import { count, pathText } from '$lib/ui/words';
	import About from './About.svelte';
	import type { BankView } from './bank.svelte';
	import History from './History.svelte';
	import KeyState from './KeyState.svelte';
	import { setKeyState } from './key-state';

	/** A question of a bank: as a student sees it, to be tried, edited, its source, history, and what is known of it. */
	let {
		stored,
		view,
		place,
		mayChange,
		next
	}: {
		stored: StoredQuestion;
		view: BankView;
		place: string;
		mayChange: boolean;
		/** Goes to the next question of the list. */
		next: () => void;
	} = $props();

	type Tab = 'question' | 'try' | 'edit' | 'source' | 'history' | 'about';
	let tab = $state<Tab>('question');
	const tabs = $derived<{ value: Tab; name: string }[]>([
		{ value: 'question', name: 'Question' },
		{ value: 'try', name: 'Try it' },
		...(mayChange && stored.question.kind !== 'unreadable' ? [{ value: 'edit' as const, name: 'Edit' }] : []),
		{ value: 'source', name: 'Source' },
		{ value: 'history', name: stored.history.length ? `History ${stored.history.length}` : 'History' },
		{ value: 'about', name: 'About' }
	]);
	/** Whoever finds the right answer without being told it has verified the key. */
	function verifyTried({ credit }: { credit: number | null }) {
		const isKnown = stored.verified !== null && stored.verified.version === stored.version;
		if (mayChange && credit === 1 && !isKnown && !stored.disputed) void setKeyState(view, stored, 'verified');
	}
	function keys(event: KeyboardEvent) {
		if (isNoShortcut(event)) return;
		if (event.key === 'e' && mayChange && stored.question.kind !== 'unreadable') tab = 'edit';
		else if (event.key === 't') tab = 'try';
		else return;
		event.preventDefault();
	}
</script>

<svelte:window onkeydown={keys} />
<p class="mute mb-2 flex justify-between gap-3 text-[13px]">
	<span class="cut">{pathText(stored.category)}</span><span class="whitespace-nowrap"
		>{place} <kbd>k</kbd> <kbd>j</kbd></span
	>
</p>
<Tabs {tabs} bind:value={tab} label="The question">
	{#snippet beside()}{stored.question.points === null ? '' : count(stored.question.points, 'point')}{/snippet}
	{#snippet panel(chosen)}
		{#if chosen === 'question' || chosen === 'try'}
			<h2 class="mb-2">{visible(stored.question.title)}</h2>
			<QuestionView
				question={stored.question}
				courseId={view.courseId}
				mode={chosen === 'try' ? 'try' : 'key'}
				words={stored.reports.flatMap((report) => report.words)}
				ontried={verifyTried}
			/>
			{#if stored.question.kind !== 'information' && stored.question.kind !== 'unreadable'}
				{#key stored.id}<KeyState {stored} {view} {mayChange} {next} />{/key}
			{/if}
			{#if chosen === 'question' && stored.reports.length}
				<div class="mt-5"><Findings findings={stored.reports} /></div>
				<a class="word text-[13px]" href="/courses/{view.courseId}/snags?check={stored.reports[0]!.rule}&at={stored.id}"
					>Deal with it on Snags</a
				>
			{/if}
		{:else if chosen === 'edit'}
			{#key `${stored.id} ${stored.version}`}<EditStored {stored} {view} done={() => (tab = 'question')} />{/key}
		{:else if chosen === 'source'}
			<Source
				source={stored.source}
				file={stored.question.source?.file ?? ''}
				first={stored.question.source?.line ?? 1}
				lit={[...new Set(stored.reports.flatMap((report) => report.line ?? []))]}
			/>
		{:else if chosen === 'history'}<History {stored} {view} {mayChange} />
		{:else}<About {stored} courseId={view.courseId} />{/if}
	{/snippet}
</Tabs>
