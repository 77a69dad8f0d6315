<script lang="ts">
	import { checkOf, mendTitle } from '$core/checks';
	import { mendFor } from '$core/checks/one';
	import { hasKey } from '$core/scoring/keys';
	import type { MatchRule } from '$core/take-in/decision';
	import type { StagedQuestion } from '$lib/server/loads/review';
	import Findings from './Findings.svelte';
	import Mark from './Mark.svelte';
	import QuestionEditor from './QuestionEditor.svelte';
	import QuestionView from './QuestionView.svelte';
	import Source from './Source.svelte';
	import Tabs from './Tabs.svelte';
	import StagedAgainst from './StagedAgainst.svelte';
	import StagedSnags from './StagedSnags.svelte';
	import { draftOf, dropDraft, type Draft } from './drafts';
	import { count, dateTime } from './words';
	import { untrack } from 'svelte';

	/**
	 * A question of a load: as a student sees it, to be tried, to be edited, its source, its snags with their mends, and
	 * its counterpart in the course. `extra` is a tab in front of all, for what is said about the file.
	 */
	let {
		shown,
		number,
		courseId,
		mayChange,
		busy,
		failure,
		matchRule = null,
		ruleWords: spoken = '',
		mend,
		waive,
		unwaive,
		edit,
		match,
		verify,
		handIn,
		points,
		countOf,
		leaveOut
	}: {
		shown: StagedQuestion;
		number: number;
		courseId: number;
		mayChange: boolean;
		busy: boolean;
		failure: string;
		/** The rule that was chosen for this question alone, and the general one in words. */
		matchRule?: MatchRule | null;
		ruleWords?: string;
		mend: (rule: string, all: boolean) => void;
		/** Waives what a rule says, of the question or of all of the load. */
		waive?: (rule: string, reason: string, all: boolean) => void;
		unwaive?: (rule: string) => void;
		/** Keeps an edited question; gives whether it was kept. */
		edit: (question: unknown) => Promise<boolean>;
		match?: (rule: MatchRule | null) => void;
		verify?: (verified: boolean) => void;
		/** What it is worth once it is taken in, where a rule says otherwise. */
		points?: number | null;
		/** In how many questions of the load a rule speaks. */
		countOf?: (rule: string) => number;
		/** Leaves the question out, where it is there twice. */
		leaveOut?: () => void;
		/** Gives a file that the question lacks. */
		handIn?: (name: string, file: File) => void;
	} = $props();

	const draftKey = $derived(`staged ${shown.id}`);
	let resumed = $state(false);
	/** What was being written of this question and was left without being kept: it is offered before anything else is written. */
	let offered = $state.raw<Draft | null>(null);
	let offeredFor = '';
	$effect(() => {
		const key = draftKey;
		const editing = tab === 'edit';
		untrack(() => {
			if (!mayChange || (editing && key === offeredFor)) return;
			if (key !== offeredFor) resumed = false;
			offeredFor = key;
			offered = draftOf(key);
		});
	});
	function letGo() {
		dropDraft(draftKey);
		offered = null;
		resumed = false;
	}

	type Tab = 'question' | 'try' | 'edit' | 'source' | 'snags' | 'against';
	let tab = $state<Tab>('question');
	const tabs = $derived<{ value: Tab; name: string }[]>([
		{ value: 'question', name: `Question ${number}` },
		{ value: 'try', name: 'Try it' },
		...(mayChange && shown.question.kind !== 'unreadable' ? [{ value: 'edit' as const, name: 'Edit' }] : []),
		{ value: 'source', name: 'Source' },
		{ value: 'snags', name: `Snags ${shown.reports.length}` },
		...(shown.against ? [{ value: 'against' as const, name: 'In course' }] : [])
	]);
	$effect(() => {
		if (!tabs.some(({ value }) => value === tab)) tab = 'question';
	});
	const lit = $derived([...new Set(shown.reports.flatMap((report) => report.line ?? []))]);
	const mends = $derived(
		[...new Set(shown.reports.map((report) => report.rule))].filter(
			(rule) => mendFor(rule, shown.question) ?? (checkOf(rule)?.scope === 'many' && mendTitle(rule))
		)
	);
</script>

<Tabs {tabs} bind:value={tab} label="The question">
	{#snippet panel(chosen)}
		{#if offered && !resumed && shown.question.kind !== 'unreadable'}<p
				class="notice doubtful flex flex-wrap items-center gap-2"
				role="status"
			>
				<span
					>There is text of yours on this question that was not kept, from {dateTime(
						new Date(offered.at)
					)}{offered.version === shown.version ? '' : '; the question has been changed since'}.</span
				>
				<button
					type="button"
					class="btn btn-sm preset-filled-brand"
					onclick={() => {
						resumed = true;
						tab = 'edit';
					}}>Go on with it</button
				><button type="button" class="btn btn-sm preset-outlined-brand" onclick={letGo}>Let it go</button>
			</p>{/if}
		{#if chosen === 'question' || chosen === 'try'}
			<QuestionView
				question={shown.question}
				{courseId}
				mode={chosen === 'try' ? 'try' : 'key'}
				words={shown.reports.flatMap((report) => report.words)}
				ontried={(mark) =>
					mayChange && mark.credit === 1 && !shown.verifiedBy && hasKey(shown.question) && verify?.(true)}
			/>
			<p class="mt-4 flex items-center gap-3 text-[13px]">
				<span class="mute"
					>{shown.question.points === null ? 'no points given' : count(shown.question.points, 'point')}{points !==
						undefined && points !== shown.question.points
						? `, ${points ?? 'none'} by the rule once it is taken in`
						: ''}</span
				>
				{#if shown.edited}<span class="mute">changed since it was read</span>{/if}
				{#if shown.verifiedBy}<Mark severity="whole" word="key verified by {shown.verifiedBy}" />{/if}
				{#if mayChange && verify && (hasKey(shown.question) || shown.verifiedBy)}<button
						type="button"
						class="btn btn-sm preset-outlined-brand ml-auto"
						disabled={busy}
						onclick={() => verify(!shown.verifiedBy)}>{shown.verifiedBy ? 'Take that back' : 'Verify the key'}</button
					>{/if}
			</p>
			{#if leaveOut && mayChange && shown.reports.some((report) => report.rule === 'exact-duplicate')}<p class="mt-2">
					<button type="button" class="btn btn-sm preset-filled-brand" disabled={busy} onclick={leaveOut}
						>Keep the other: leave this one out</button
					>
				</p>{/if}
			{#if chosen === 'question' && shown.reports.length}<div class="mt-3">
					<Findings findings={shown.reports.slice(0, 2)} />
					{#if mayChange && mends.length}<button
							type="button"
							class="btn btn-sm preset-filled-brand btn-long mt-1"
							disabled={busy}
							onclick={() => mend(mends[0]!, false)}>{mendTitle(mends[0]!)}</button
						>{/if}
				</div>{/if}
		{:else if chosen === 'edit' && offered && !resumed}
			<p class="mute">Say first what becomes of the text that was not kept.</p>
		{:else if chosen === 'edit'}
			{#key `${shown.id} ${shown.version} ${resumed}`}<QuestionEditor
					question={shown.question}
					{draftKey}
					version={shown.version}
					from={resumed ? offered?.question : null}
					{courseId}
					{busy}
					{failure}
					save={async (question) => {
						if (!(await edit(question))) return;
						letGo();
						tab = 'question';
					}}
					cancel={() => {
						letGo();
						tab = 'question';
					}}
					{...handIn ? { handIn } : {}}
				/>{/key}
		{:else if chosen === 'source'}
			<Source
				source={shown.source}
				file={shown.question.source?.file ?? ''}
				first={shown.question.source?.line ?? 1}
				{lit}
				words={shown.reports.flatMap((report) => report.words)}
			/>
		{:else if chosen === 'snags'}
			<StagedSnags {shown} {mends} {mayChange} {busy} {mend} {waive} {unwaive} {countOf} />
		{:else if shown.against}
			<StagedAgainst
				question={shown.question}
				against={shown.against}
				{courseId}
				{mayChange}
				{busy}
				{matchRule}
				{spoken}
				{match}
			/>
		{/if}
	{/snippet}
</Tabs>
