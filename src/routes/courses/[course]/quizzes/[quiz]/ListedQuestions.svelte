<script lang="ts">
	import { kindName, type Kind } from '$core/kinds';
	import { page } from '$app/state';
	import type { NamedQuestion } from '$lib/server/quizzes/pool-page';
	import type { Part } from '$lib/server/quizzes/quiz';
	import { send } from '$lib/ui/doing';
	import { dragPart } from '$lib/ui/drag';
	import { wholeList } from '$lib/ui/pages.svelte';
	import Rows from '$lib/ui/Rows.svelte';
	import ArrowDown from '@lucide/svelte/icons/arrow-down';
	import ArrowUp from '@lucide/svelte/icons/arrow-up';
	import X from '@lucide/svelte/icons/x';
	import FindQuestion from './FindQuestion.svelte';
	import type { Sheet } from './sheet.svelte';

	/** The questions that a part lists, in an order of one's own. */
	let { sheet, part, mayChange }: { sheet: Sheet; part: Part; mayChange: boolean } = $props();

	let names = $state.raw(new Map<number, NamedQuestion>());
	const listed = $derived(
		part.questions.map((id) => names.get(id) ?? { id, title: '…', kind: '', points: null, chance: null })
	);
	$effect(() => {
		if (part.questions.every((id) => names.has(id))) return;
		void send<NamedQuestion[]>(`${sheet.address}/names`, part.questions).then((answer) => {
			if (answer.ok) names = new Map(answer.value.map((question) => [question.id, question]));
		});
	});
	function move(from: number, to: number) {
		const next = [...part.questions];
		const [question] = next.splice(from, 1);
		next.splice(to, 0, question!);
		part.questions = next;
	}
</script>

<div class="list">
	<Rows
		source={wholeList(listed)}
		chosen={null}
		choose={() => undefined}
		label="Questions of the list"
		columns="30px minmax(0, 1fr) 56px 84px"
		height={30}
	>
		{#snippet head()}<span role="columnheader" class="text-right">No.</span><span role="columnheader">Question</span
			><span role="columnheader" class="text-right">points</span><span role="columnheader"
				><span class="visually-hidden">Do</span></span
			>{/snippet}
		{#snippet line(question: (typeof listed)[number])}
			{@const at = part.questions.indexOf(question.id)}
			<span
				role="cell"
				class="mute text-right"
				{@attach dragPart({
					lift: () => (mayChange ? { sort: 'listed question', keys: [question.id] } : null),
					accepts: ({ sort }) => mayChange && sort === 'listed question',
					drop: ({ keys }) => move(part.questions.indexOf(Number(keys[0])), at)
				})}>{at + 1}</span
			>
			<span
				role="cell"
				class="cut"
				title="{question.title}{question.kind ? ` · ${kindName(question.kind as Kind)}` : ''}">{question.title}</span
			>
			<span role="cell" class="text-right">{part.pointsEach ?? question.points ?? '–'}</span>
			<span role="cell" class="text-right whitespace-nowrap"
				>{#if mayChange}<button
						type="button"
						aria-label="Move {question.title} up"
						disabled={at === 0}
						onclick={() => move(at, at - 1)}><ArrowUp size={14} /></button
					><button
						type="button"
						aria-label="Move {question.title} down"
						disabled={at === listed.length - 1}
						onclick={() => move(at, at + 1)}><ArrowDown size={14} /></button
					><button
						type="button"
						aria-label="Take {question.title} out"
						onclick={() => (part.questions = part.questions.filter((id) => id !== question.id))}><X size={14} /></button
					>{/if}</span
			>
		{/snippet}
	</Rows>
</div>
{#if mayChange}
	<FindQuestion
		courseId={Number(page.params.course)}
		label="Add a question"
		pick={(question) => {
			names = new Map([...names, [question.id, question]]);
			if (!part.questions.includes(question.id)) part.questions = [...part.questions, question.id];
		}}
	/>
	<p class="mt-2">
		<button type="button" class="word" onclick={() => (part.questions = [])}>Draw from categories instead</button>
	</p>
{/if}

<style>
	.list {
		height: 280px;
		display: flex;
		flex-direction: column;
	}
	button {
		cursor: pointer;
		padding: 4px;
		min-width: 24px;
		min-height: 24px;
	}
	button:disabled {
		opacity: 0.3;
	}
	.word {
		padding: 0;
	}
</style>
