<script lang="ts">
	import { enhance } from '$app/forms';
	import { checkOf, mendTitle } from '$core/checks';
	import { mendFor } from '$core/checks/one';
	import type { SnagRow } from '$lib/server/snags/snags';
	import Mark from '$lib/ui/Mark.svelte';
	import QuestionView from '$lib/ui/QuestionView.svelte';
	import Source from '$lib/ui/Source.svelte';
	import Tabs from '$lib/ui/Tabs.svelte';
	import { ruleTitle, ruleWhy } from '$lib/ui/rule';
	import Pair from './Pair.svelte';
	import type { ShownSnag } from './snag';
	import Waive from './Waive.svelte';

	/** One snag: what is wrong and why it matters, the question, its source, and the mend before and after. */
	let {
		shown,
		snag,
		check,
		course,
		mayChange
	}: { shown: ShownSnag; snag: SnagRow; check: string; course: { id: number }; mayChange: boolean } = $props();

	type Tab = 'mend' | 'question' | 'source';
	let wanted = $state<Tab>('mend');
	const card = $derived(checkOf(check));
	/** What the mend of the check is called, where it fits the question that is shown. */
	const fitting = $derived(
		card?.scope === 'many' ? mendTitle(check) : (mendFor(check, shown.stored.question)?.title ?? null)
	);
	const tabs = $derived<{ value: Tab; name: string }[]>([
		...(fitting ? [{ value: 'mend' as const, name: 'The mend' }] : []),
		{ value: 'question', name: 'Question' },
		{ value: 'source', name: 'Source' }
	]);
	const severity = $derived(
		shown.stored.reports.find((report) => report.rule === check)?.severity ?? card?.severity ?? 'untidy'
	);
	const changes = $derived(
		shown.preview && JSON.stringify(shown.preview.before) !== JSON.stringify(shown.preview.after)
	);
	const source = $derived(shown.stored.question.source);
	const inBank = $derived(`/courses/${course.id}/banks?bank=${snag.bankId}&question=${snag.questionId}`);
</script>

<h2><Mark {severity} word={ruleTitle(check)} /></h2>
<p class="mt-1">{snag.message}</p>
{#if ruleWhy(check)}<p class="mute mt-1 text-[13px]">{ruleWhy(check)}</p>{/if}
{#if check === 'exact-duplicate' && mayChange}<form method="POST" action="?/keep" use:enhance class="mt-2">
		<input type="hidden" name="question" value={snag.questionId} /><button class="btn btn-sm preset-filled-brand"
			>Keep one, {snag.twins} to the bin</button
		>
		<span class="mute mt-1 block text-[13px]"
			>The one that a quiz uses stays, else the one that is verified, else the oldest. It takes over what it lacks of
			the others.</span
		>
	</form>{/if}
{#if shown.partner}<div class="mt-3">
		<Pair {check} stored={shown.stored} partner={shown.partner} {mayChange} />
	</div>{/if}
{#if mayChange}<div class="mt-3 flex flex-wrap gap-2">
		{#key `${check} ${snag.questionId}`}<Waive {check} questionId={snag.questionId} category={snag.category} />{/key}
	</div>{/if}
<div class="mt-4">
	<Tabs
		{tabs}
		bind:value={() => (wanted === 'mend' && !fitting ? 'question' : wanted), (value: Tab) => (wanted = value)}
		label="The snag"
	>
		{#snippet panel(chosen)}
			{#if chosen === 'source'}
				<Source
					source={shown.stored.source}
					file={source?.file ?? ''}
					first={source?.line ?? 1}
					lit={[...new Set(shown.stored.reports.flatMap((report) => report.line ?? []))]}
				/>
			{:else if chosen === 'mend' && shown.preview}
				<p class="mute mb-2">{fitting}.</p>
				<h3>Before</h3>
				<div class="frame">
					<h4>{shown.preview.before.title}</h4>
					<QuestionView question={shown.preview.before} courseId={course.id} words={snag.words} />
				</div>
				{#if changes}
					<h3 class="mt-4">After</h3>
					<div class="frame after">
						<h4>{shown.preview.after.title}</h4>
						<QuestionView question={shown.preview.after} courseId={course.id} />
					</div>
					{#if mayChange}
						<form method="POST" action="?/mend" use:enhance class="mt-3 flex gap-2">
							<input type="hidden" name="check" value={check} /><input
								type="hidden"
								name="question"
								value={snag.questionId}
							/><input type="hidden" name="version" value={shown.preview.version} />
							<button class="btn btn-sm preset-filled-brand" data-mend-this>Mend this <kbd>m</kbd></button>
							<a class="btn btn-sm preset-outlined-brand" href={inBank}>Open it in its bank</a>
						</form>
					{/if}
				{:else}<p class="notice doubtful">
						{card?.scope === 'many'
							? 'This one can stay as it is: the mend changes the others.'
							: 'Nothing can be mended safely here: it needs a person who knows what was meant.'}
					</p>{/if}
			{:else}
				<QuestionView question={shown.stored.question} courseId={course.id} words={snag.words} />
				<p class="mt-4"><a class="btn btn-sm preset-outlined-brand" href={inBank}>Open it in its bank</a></p>
			{/if}
		{/snippet}
	</Tabs>
</div>

<style>
	.frame {
		border: 1px solid var(--line2);
		border-radius: 6px;
		padding: 10px 12px;
	}
	.frame.after {
		border-color: var(--lichen);
	}
	h4 {
		margin-bottom: 4px;
		font-weight: 600;
	}
</style>
