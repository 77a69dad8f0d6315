<script lang="ts">
	import { kindNamed, type Question } from '$core/kinds';
	import { rightResponse, score, wrongResponse, type Mark } from '$core/scoring/score';
	import type { Response } from '$core/kinds/kind';
	import { datasetOf, shownValue } from '$core/kinds/calculated/datasets';
	import { replaceBlanks, replaceVariables } from '$core/markup/markers';
	import { interfaceOf } from './kinds';
	import { light, rich } from './rich';

	/**
	 * A question as a student sees it. With `mode` "key" its key is marked; with "try" it can be answered and is marked
	 * by the real scoring. `order` is the order of the options, where a sitting has shuffled them.
	 */
	let {
		question,
		courseId,
		mode = 'key',
		words = [],
		order,
		pointsEach = null,
		onmark,
		ontried
	}: {
		question: Question;
		courseId: number;
		mode?: 'key' | 'try';
		words?: string[];
		order?: number[];
		pointsEach?: number | null;
		/** Told the mark of each answer, where one is marked for good: then nothing gives a right answer away. */
		onmark?: (mark: Mark | null) => void;
		/** Told the mark of an answer that the person has found, before the program has shown a right one. */
		ontried?: (mark: Mark) => void;
	} = $props();

	let answer = $state<Response>({});
	let mark = $state<Mark | null>(null);
	/** The program has shown what is right: whoever gives it then knows nothing by it. */
	let told = false;
	const Show = $derived(interfaceOf(question.kind).show);
	const { marks } = $derived(kindNamed(question.kind));
	const points = $derived(pointsEach ?? question.points);
	const drawn = $derived.by(() => {
		if (question.kind !== 'calculated' || mode !== 'try') return null;
		try {
			return datasetOf(question, answer.seed ?? '1').values;
		} catch {
			return null;
		}
	});
	/** The places of blanks read as their numbers, variables as their names or as the numbers that are drawn. */
	const placed = (markup: string) => {
		const order = question.kind === 'fill-blanks' ? question.blanks.map((blank) => blank.identifier) : [];
		const decimals = new Map(
			question.kind === 'calculated' ? question.variables.map((one) => [one.name, one.decimals]) : []
		);
		return replaceVariables(
			replaceBlanks(markup, (identifier) => `<span class="gap">${order.indexOf(identifier) + 1}</span>`),
			(name) =>
				drawn?.has(name)
					? shownValue(drawn.get(name)!, decimals.get(name) ?? null)
					: `<var class="variable">${name}</var>`
		);
	};
	const html = (markup: string) => rich(placed(markup), question.attachments, courseId);
	const addressOf = (name: string) => {
		const file = question.attachments.find((one) => one.name === name);
		return file?.hash ? `/courses/${courseId}/files/${file.hash}?as=${encodeURIComponent(file.mediaType)}` : null;
	};
	/** What is asked: the same question fetched anew, or verified meanwhile, leaves the answer and its mark where they are. */
	const asked = $derived(JSON.stringify(question));
	$effect(() => {
		void asked;
		answer = {};
		told = false;
		mark = null;
	});
	function clear() {
		mark = null;
		onmark?.(null);
	}
	function given(response: Response | null) {
		if (!response) return;
		answer = response;
		told = true;
		give();
	}
	function give() {
		// an order that lies there as it is wanted is an answer, though nothing was moved
		if (question.kind === 'ordering' && !answer.order) answer = { ...answer, order: question.presented };
		mark = score(question, answer);
		onmark?.(mark);
		if (!told) ontried?.(mark);
	}
	const earned = $derived(
		mark?.credit == null || points === null ? null : Math.round(mark.credit * points * 100) / 100
	);
</script>

<div use:light={words}>
	<div class="stem rich">
		{#if question.stimulus}<!-- eslint-disable-next-line svelte/no-at-html-tags -->
			<div class="shared">{@html html(question.stimulus.content)}</div>{/if}
		{#if question.stem}<!-- cleaned by core/markup before it was stored, and there is a content security policy besides -->
			<!-- eslint-disable-next-line svelte/no-at-html-tags -->
			{@html html(question.stem)}
		{:else if question.kind !== 'unreadable'}<span class="faint">There is no stem.</span>{/if}
	</div>

	{#if Show}<Show
			{question}
			{mode}
			{answer}
			{order}
			{html}
			{give}
			picture={addressOf}
			onanswer={(response) => {
				answer = response;
				if (mark) clear();
			}}
		/>{/if}

	{#if mode === 'try' && marks !== 'nobody' && question.kind !== 'file-upload'}
		<div class="mt-3 flex flex-wrap gap-2">
			<button class="btn btn-sm preset-filled-brand" type="button" onclick={give}>Mark it</button>
			{#if onmark === undefined}
				<button
					class="btn btn-sm preset-outlined-brand"
					type="button"
					disabled={!rightResponse(question)}
					onclick={() => given(rightResponse(question))}>A right answer</button
				>
				<button
					class="btn btn-sm preset-outlined-brand"
					type="button"
					disabled={!wrongResponse(question)}
					onclick={() => given(wrongResponse(question))}>A wrong answer</button
				>
			{/if}
		</div>
		<div role="status">
			{#if mark}
				<div
					class="notice {mark.credit === null
						? ''
						: mark.credit >= 1
							? 'whole'
							: mark.credit > 0
								? 'doubtful'
								: 'broken'}"
				>
					<b
						>{mark.credit === null
							? 'Not marked.'
							: earned === null
								? `${Math.round(mark.credit * 100)} percent.`
								: `${earned} of ${points} ${points === 1 ? 'point' : 'points'}.`}</b
					>
					{mark.reason}
					{#each mark.feedback as told, at (at)}<!-- eslint-disable-next-line svelte/no-at-html-tags -->
						<div class="rich mute">{@html html(told)}</div>{/each}
				</div>
			{/if}
		</div>
	{/if}

	{#if mode === 'key'}
		<!-- eslint-disable svelte/no-at-html-tags -->
		{#each Object.entries(question.feedback) as [part, told] (part)}
			{#if told}
				<p class="mute mt-3 text-[13px]">
					<b
						>{{ general: 'Feedback', correct: 'When right', incorrect: 'When wrong', partly: 'When partly right' }[
							part
						]}:</b
					> <span class="rich">{@html html(told)}</span>
				</p>{/if}
		{/each}
	{/if}
</div>

<style>
	.shared {
		margin-bottom: 10px;
		padding: 2px 0 8px 12px;
		border-left: 3px solid var(--line2);
	}
	.stem :global(.gap) {
		display: inline-block;
		min-width: 2.6em;
		border-bottom: 2px solid var(--woad);
		text-align: center;
	}
	.stem :global(var.variable) {
		color: var(--woad);
		font-style: normal;
		font-family: var(--mono, monospace);
	}
</style>
