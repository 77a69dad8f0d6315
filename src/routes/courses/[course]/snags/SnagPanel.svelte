<script lang="ts">
	import { checkOf, mendTitle } from '$core/checks';
	import { mendFor } from '$core/checks/one';
	import Mark from '$lib/ui/Mark.svelte';
	import FileChanges from './FileChanges.svelte';
	import EditStored from '$lib/ui/EditStored.svelte';
	import QuestionView from '$lib/ui/QuestionView.svelte';
	import Source from '$lib/ui/Source.svelte';
	import Tabs from '$lib/ui/Tabs.svelte';
	import WordChanges from '$lib/ui/WordChanges.svelte';
	import { wordDifferences } from '$core/compare/words';
	import { ruleTitle, ruleWhy } from '$lib/ui/rule';
	import Pair from './Pair.svelte';
	import type { ShownSnag } from './snag';
	import type { ListedSnag, SnagsView } from './snags.svelte';
	import Waive from './Waive.svelte';
	import { enhance } from '$lib/ui/refresh';

	/** One snag: what is wrong and why it matters, the question, its source, and the mend before and after. */
	let { shown, snag, view, mayChange }: { shown: ShownSnag; snag: ListedSnag; view: SnagsView; mayChange: boolean } =
		$props();

	const check = $derived(snag.rule);
	type Tab = 'mend' | 'question' | 'edit' | 'source';
	let wanted = $state<Tab>('mend');
	const card = $derived(checkOf(check));
	/** What the mend of the check is called, where it fits the question that is shown. */
	const fitting = $derived(
		card?.scope === 'many' ? mendTitle(check) : (mendFor(check, shown.stored.question)?.title ?? null)
	);
	const tabs = $derived<{ value: Tab; name: string }[]>([
		...(fitting ? [{ value: 'mend' as const, name: 'The mend' }] : []),
		{ value: 'question', name: 'Question' },
		...(mayChange && shown.stored.question.kind !== 'unreadable' ? [{ value: 'edit' as const, name: 'Edit' }] : []),
		{ value: 'source', name: 'Source' }
	]);
	const severity = $derived(
		shown.stored.reports.find((report) => report.rule === check)?.severity ?? card?.severity ?? 'untidy'
	);
	const changes = $derived(
		shown.preview && JSON.stringify(shown.preview.before) !== JSON.stringify(shown.preview.after)
	);
	/** Whether the mend changes words, and not just how they are marked up or marked. */
	const inWords = $derived(
		changes && shown.preview ? wordDifferences(shown.preview.before, shown.preview.after).length > 0 : false
	);
	const source = $derived(shown.stored.question.source);
	const inBank = $derived(`/courses/${view.courseId}/banks?bank=${snag.bankId}&question=${snag.questionId}`);
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
			{:else if chosen === 'edit'}
				{#key `${shown.stored.id} ${shown.stored.version}`}<EditStored
						stored={shown.stored}
						{view}
						done={() => (wanted = 'mend')}
					/>{/key}
			{:else if chosen === 'mend' && shown.preview}
				<p class="mute mb-2">{fitting}.</p>
				{#if inWords}<WordChanges before={shown.preview.before} after={shown.preview.after} />{/if}
				<FileChanges before={shown.preview.before} after={shown.preview.after} />
				<h3 class="mt-4">Before</h3>
				<div class="frame">
					<h4>{shown.preview.before.title}</h4>
					<QuestionView question={shown.preview.before} courseId={view.courseId} words={snag.words} />
				</div>
				{#if changes}
					<h3 class="mt-4">After</h3>
					<div class="frame after">
						<h4>{shown.preview.after.title}</h4>
						<QuestionView question={shown.preview.after} courseId={view.courseId} />
					</div>
					{#if mayChange}
						<p class="mt-3 flex gap-2">
							<button
								type="button"
								class="btn btn-sm preset-filled-brand"
								data-mend-this
								disabled={view.busy}
								onclick={() => view.mend(check, { question: snag.questionId, version: shown.preview!.version })}
								>Mend this <kbd>m</kbd></button
							>
							<a class="btn btn-sm preset-outlined-brand" href={inBank}>Open it in its bank</a>
						</p>
					{/if}
				{:else}<p class="notice doubtful">
						{card?.scope === 'many'
							? 'This one can stay as it is: the mend changes the others.'
							: check === 'picture-missing'
								? 'No file of that name came with its load, or several did. Ask for it, and put it in by hand.'
								: 'Nothing can be mended safely here: it needs a person who knows what was meant.'}
					</p>{/if}
			{:else}
				<QuestionView question={shown.stored.question} courseId={view.courseId} words={snag.words} />
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
