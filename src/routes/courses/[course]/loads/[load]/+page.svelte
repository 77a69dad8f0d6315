<script lang="ts">
	import { takesPoints } from '$core/take-in/adjust';
	import type { ListedQuestion } from '$lib/server/loads/listed';
	import type { StagedQuestion } from '$lib/server/loads/review';
	import type { CategorySource } from '$lib/server/loads/sources';
	import Columns from '$lib/ui/Columns.svelte';
	import Findings from '$lib/ui/Findings.svelte';
	import { latest } from '$lib/ui/latest';
	import { bytes, count, courseWords } from '$lib/ui/words';
	import { onMount, untrack } from 'svelte';
	import Bar from './Bar.svelte';
	import Changes from './Changes.svelte';
	import ChosenQuestion from './ChosenQuestion.svelte';
	import Contents from './Contents.svelte';
	import InTheFile from './InTheFile.svelte';
	import { Listing } from './listing.svelte';
	import Questions from './Questions.svelte';
	import { Review, type Asked } from './review.svelte';
	import Rules from './Rules.svelte';

	let { data, form } = $props();

	const address = untrack(() => `/courses/${data.course.id}/loads/${data.found.id}`);
	const review = untrack(() => new Review(address, { summary: data.summary, version: data.version }));
	const listing = untrack(() => new Listing(address, data.page));
	$effect(() => {
		void JSON.stringify(review.decision);
		if (data.mayChange) untrack(() => review.keep());
	});
	$effect(() => {
		if (review.changes) untrack(() => void listing.again(chosen));
	});
	onMount(() => {
		const timer = setInterval(() => void review.look(), 2500);
		return () => clearInterval(timer);
	});

	let chosen = $state<number | null>(null);
	let shown = $state.raw<StagedQuestion | null>(null);
	let aboutFile = $state(untrack(() => !data.summary.found));
	let panel = $state<'' | 'rules' | 'changes'>('');
	let done = $state('');
	let mendedHere = 0;
	let source = $state(untrack(() => data.summary.sources.now));
	const sourceWords: Record<CategorySource, string> = {
		package: '',
		sections: 'its sections',
		metadata: 'its metadata',
		folders: 'its folders'
	};
	const { found, course } = $derived(data);
	const bank = $derived(data.banks.find(({ id }) => id === review.decision.bankId));
	const target = $derived(
		`${courseWords(course, data.courses)} › ${review.decision.bankId === null ? review.decision.bankName.trim() || 'a new bank' : bank?.name}`
	);
	const nothing = $derived(
		(data.reports.every((report) => report.message !== found.failure) && found.failure) ||
			'There is no question in this file.'
	);
	/** What a question is worth once it is taken in. */
	const pointsOf = (question: ListedQuestion) =>
		review.decision.points !== null && takesPoints(question.kind) && !question.alone.includes('points')
			? review.decision.points
			: question.points;

	const fetchQuestion = latest(async (id: number) => {
		const answer = await fetch(`${address}/questions/${id}`).catch(() => null);
		return answer?.ok ? ((await answer.json()) as StagedQuestion) : undefined;
	});
	async function choose({ id }: { id: number }) {
		chosen = id;
		aboutFile = false;
		const question = await fetchQuestion(id);
		if (question) shown = question;
	}
	onMount(() => {
		if (review.summary.first !== null) void choose({ id: review.summary.first });
	});
	const category = $derived(listing.filter.category);
	// a category whose last question has gone elsewhere shows everything again
	$effect(() => {
		if (category !== null && !review.tree.some((line) => line.key === category)) void listing.show({ category: null });
	});
	/** Does something to what is selected, or to one question, and shows that one anew. */
	async function act(what: Asked, said = ''): Promise<boolean> {
		done = '';
		const answer = await review.ask(what);
		if (!answer) return false;
		if (answer.mended) {
			const { mended, left } = answer.mended;
			mendedHere += mended;
			done = `Mended ${count(mended, 'question')}${mendedHere > mended ? `, ${mendedHere.toLocaleString('en')} since you came here` : ''}${left ? `; ${left} could not be changed` : ''}.`;
		} else done = answer.waived ? `Waived for ${count(answer.waived, 'question')}.` : said;
		if (chosen !== null) void choose({ id: chosen });
		return true;
	}
	async function handIn(id: number, name: string, file: File) {
		const number = await review.handIn(id, name, file);
		if (number === null) return;
		done = `“${name}” is there now, in ${count(number, 'question')}.`;
		void choose({ id });
	}
	function oneCategory() {
		review.decision.categories = review.decision.categories === 'one' ? 'keep' : 'one';
		if (review.decision.categories === 'one') panel = 'rules';
	}
</script>

<svelte:head><title>{found.file_name} · Review · Yarn Barrow</title></svelte:head>
<Columns name="review" widths={[306, 392]} firstLabel="Contents" middleLabel="Questions" lastLabel="The question">
	{#snippet first()}
		<div class="flex items-baseline justify-between">
			<h1 class="text-[16px]!">Contents</h1>
			<a class="word text-[13px]" href="/courses/{course.id}/loads">all loads</a>
		</div>
		<p class="mute mb-2 mt-1 break-words">
			{found.file_name} · {#if found.format && review.summary.found}{found.format} ·{/if}
			<span class="whitespace-nowrap">{bytes(found.size)}</span>
			· <span class="whitespace-nowrap">{count(review.summary.found, 'question')}</span>
		</p>
		{#if review.summary.sources.others.length && data.mayChange}
			<label class="mb-1 block text-[13px]"
				>Categories from
				<select class="select" bind:value={source} onchange={() => source && act({ do: 'source', from: source })}
					><option value="package">the file, as it was read</option
					>{#each review.summary.sources.others as other (other)}<option value={other}>{sourceWords[other]}</option
						>{/each}</select
				></label
			>
		{/if}
		{#if review.summary.found}<Contents
				{review}
				{category}
				pick={(key) => void listing.show({ category: key })}
				mayChange={data.mayChange}
			/>{/if}
		{#if data.mayChange && review.tree.length > 1}<p class="mt-2 text-[13px]">
				<button type="button" class="word" onclick={oneCategory}
					>{review.decision.categories === 'one' ? 'Keep its own categories' : 'All into one category'}</button
				>
			</p>{/if}
		<InTheFile {data} {review} aboutFile={() => (aboutFile = true)} />
	{/snippet}

	{#snippet middle()}
		<h2 class="visually-hidden">Questions</h2>
		<Questions {review} {listing} {chosen} {choose} {act} {pointsOf} mayChange={data.mayChange} {nothing} />
	{/snippet}

	{#snippet last()}
		{#if aboutFile}
			<div class="tabs">
				<h2 class="pb-1">The file itself</h2>
				{#if shown}<button type="button" class="ml-auto" onclick={() => (aboutFile = false)}
						>back to the question</button
					>{/if}
			</div>
			<Findings findings={data.reports} />
		{:else if shown}
			<ChosenQuestion
				{shown}
				{review}
				courseId={course.id}
				mayChange={data.mayChange}
				{act}
				handIn={(name, file) => void handIn(shown!.id, name, file)}
				{pointsOf}
			/>
		{/if}
	{/snippet}
</Columns>

{#if panel === 'rules'}<Rules {review} courseId={data.course.id} saved={data.saved} close={() => (panel = '')} />
{:else if panel === 'changes'}<Changes
		{review}
		{target}
		show={(id) => {
			panel = '';
			void choose({ id });
		}}
		close={() => (panel = '')}
	/>{/if}

<Bar {data} {form} {review} {target} {done} bind:panel />
