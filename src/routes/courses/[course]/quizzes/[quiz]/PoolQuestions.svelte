<script lang="ts">
	import { kindName, type Kind } from '$core/kinds';
	import type { NamedQuestion } from '$lib/server/quizzes/pool-page';
	import type { Part } from '$lib/server/quizzes/quiz';
	import { send } from '$lib/ui/doing';
	import { latest } from '$lib/ui/latest';
	import { ShownList, type Page, type Pages } from '$lib/ui/pages.svelte';
	import { percentOf } from '$lib/ui/percent';
	import Rows from '$lib/ui/Rows.svelte';
	import Segments from '$lib/ui/Segments.svelte';
	import { count } from '$lib/ui/words';
	import { untrack } from 'svelte';
	import FindQuestion from './FindQuestion.svelte';
	import type { Sheet } from './sheet.svelte';

	/** The questions that a part can give, each with its chance; one is left out, or taken in, by a click. */
	let { sheet, part, mayChange, courseId }: { sheet: Sheet; part: Part; mayChange: boolean; courseId: number } =
		$props();

	let sort = $state<'order' | 'rarest' | 'likeliest'>('order');
	const list = new ShownList<NamedQuestion>();
	const pages = $derived(list.pages as Pages<NamedQuestion> | undefined);
	let out = $state.raw<NamedQuestion[]>([]);
	let failure = $state('');
	const size = 60;
	const page = async (from: number) => {
		const answer = await send<Page<NamedQuestion>>(`${sheet.address}/pool`, {
			...sheet.sent,
			part: sheet.chosen,
			from,
			sort
		});
		failure = answer.ok ? '' : answer.message;
		return answer.ok ? answer.value : null;
	};
	const first = latest(page);
	$effect(() => {
		void sort;
		void sheet.changes;
		untrack(() => {
			void first(0).then((given) => {
				if (given) list.take(`${sheet.chosen} ${sort}`, given, size, page);
			});
			void send<NamedQuestion[]>(`${sheet.address}/names`, part.exclude).then((answer) => {
				if (answer.ok) out = answer.value;
			});
		});
	});
	function leave(id: number) {
		part.include = part.include.filter((other) => other !== id);
		if (!part.exclude.includes(id)) part.exclude = [...part.exclude, id];
	}
	const chanceText = ({ chance }: NamedQuestion) =>
		chance === null ? '–' : chance === 0 ? 'never' : percentOf(chance);
</script>

<div class="mb-1 flex flex-wrap items-center gap-2">
	<Segments
		bind:value={sort}
		label="Sorted by"
		choices={[
			{ value: 'order', name: 'bank order' },
			{ value: 'rarest', name: 'rarest first' },
			{ value: 'likeliest', name: 'likeliest first' }
		]}
	/>
</div>
{#if failure}<p class="notice broken" role="alert">{failure}</p>{/if}
{#if pages}
	<div class="list">
		<Rows
			source={pages}
			chosen={null}
			choose={() => undefined}
			label="Questions of the pool"
			columns="minmax(0, 1fr) 76px 34px"
			height={30}
		>
			{#snippet head()}<span role="columnheader">Question</span><span role="columnheader" class="text-right"
					>in a sitting</span
				><span role="columnheader"><span class="visually-hidden">Do</span></span>{/snippet}
			{#snippet line(question: NamedQuestion)}
				<span
					role="cell"
					class="cut"
					title="{question.title} · {kindName(question.kind as Kind)} · {[question.bank, question.category]
						.filter(Boolean)
						.join(' › ')}"
					>{#if part.include.includes(question.id)}<b>+</b>{/if}
					{question.title}</span
				>
				<span role="cell" class="text-right">{chanceText(question)}</span>
				<span role="cell" class="text-right"
					>{#if mayChange && sheet.knowsQuotas}<button
							type="button"
							class="word text-[13px]"
							aria-label="Leave out {question.title}"
							onclick={() => leave(question.id)}>out</button
						>{/if}</span
				>
			{/snippet}
		</Rows>
	</div>
{/if}
{#if out.length}
	<h3 class="mt-3">{count(out.length, 'question')} left out by hand</h3>
	<ul>
		{#each out as question (question.id)}<li class="flex gap-3">
				<span class="cut">{question.title}</span>{#if mayChange}<button
						type="button"
						class="word ml-auto text-[13px]"
						aria-label="Put back {question.title}"
						onclick={() => (part.exclude = part.exclude.filter((id) => id !== question.id))}>put back</button
					>{/if}
			</li>{/each}
	</ul>
{/if}
{#if mayChange && sheet.knowsQuotas}
	<FindQuestion
		{courseId}
		label="Take a question into the pool"
		pick={({ id }) => {
			part.exclude = part.exclude.filter((other) => other !== id);
			if (!part.include.includes(id)) part.include = [...part.include, id];
		}}
	/>
{/if}

<style>
	.list {
		height: 250px;
		display: flex;
		flex-direction: column;
	}
	button {
		cursor: pointer;
	}
</style>
