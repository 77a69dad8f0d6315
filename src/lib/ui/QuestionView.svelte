<script lang="ts">
	import { isChoice, type Question } from '$core/kinds';
	import { acceptedNumberText } from '$core/kinds/answers';
	import { rightResponse, score, wrongResponse, type Mark } from '$core/scoring/score';
	import type { Response } from '$core/kinds/kind';
	import { datasetOf, shownValue } from '$core/kinds/calculated/datasets';
	import { replaceBlanks, replaceVariables } from '$core/markup/markers';
	import { visible } from '$core/markup/visible';
	import KindView from './KindView.svelte';
	import { percentOf } from './percent';
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
		onmark
	}: {
		question: Question;
		courseId: number;
		mode?: 'key' | 'try';
		words?: string[];
		order?: number[];
		pointsEach?: number | null;
		onmark?: (mark: Mark | null) => void;
	} = $props();

	const name = $props.id();
	let ticked = $state<string[]>([]);
	let text = $state('');
	let rest = $state<Response>({});
	let mark = $state<Mark | null>(null);
	const points = $derived(pointsEach ?? question.points);
	const drawn = $derived.by(() => {
		if (question.kind !== 'calculated' || mode !== 'try') return null;
		try {
			return datasetOf(question, rest.seed ?? '1').values;
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
	const allOrNothing = $derived(question.kind === 'multiple-response' && question.combination === 'all');
	const credit = (value: number) =>
		value >= 1 || (allOrNothing && value > 0) ? 'key' : value === 0 || allOrNothing ? '' : percentOf(value);

	/** What is asked: the same question fetched anew, or verified meanwhile, leaves the answer and its mark where they are. */
	const asked = $derived(JSON.stringify(question));
	$effect(() => {
		void asked;
		ticked = [];
		text = '';
		rest = {};
		mark = null;
	});
	function tick(identifier: string, on: boolean) {
		if (question.kind !== 'multiple-response') ticked = [identifier];
		else ticked = on ? [...ticked, identifier] : ticked.filter((one) => one !== identifier);
		if (mark) clear();
	}
	function clear() {
		mark = null;
		onmark?.(null);
	}
	function answer(response: Response | null) {
		if (!response) return;
		ticked = response.options ?? [];
		text = response.text ?? '';
		rest = response;
		give();
	}
	function give() {
		mark = score(question, isPlain ? { options: ticked, text } : rest);
		onmark?.(mark);
	}
	const isPlain = $derived(isChoice(question) || ['short-answer', 'numeric', 'essay'].includes(question.kind));
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

	{#if isChoice(question)}
		<div class="options" role="group" aria-label="Options">
			{#each order ?? question.options.map((_, at) => at) as at (at)}
				{@const option = question.options[at]!}
				<label
					class="option"
					class:key={mode === 'key' && option.credit > 0}
					class:partly={mode === 'key' &&
						option.credit > 0 &&
						option.credit < 1 &&
						question.kind !== 'multiple-response'}
				>
					{#if mode === 'try'}
						<input
							type={question.kind === 'multiple-response' ? 'checkbox' : 'radio'}
							name="{name}-answer"
							checked={ticked.includes(option.identifier)}
							onchange={(event) => tick(option.identifier, event.currentTarget.checked)}
						/>
					{:else}
						<svg viewBox="0 0 12 12" aria-hidden="true"
							>{#if question.kind === 'multiple-response'}<rect
									x="2.4"
									y="2.4"
									width="7.2"
									height="7.2"
								/>{:else}<circle cx="6" cy="6" r="3.6" />{/if}</svg
						>
					{/if}
					<span class="rich"
						><!-- eslint-disable-next-line svelte/no-at-html-tags -->
						{@html html(option.text) || '<i>empty</i>'}
						{#if option.feedback && mode === 'key'}<!-- eslint-disable-next-line svelte/no-at-html-tags -->
							<span class="told">{@html html(option.feedback)}</span>{/if}</span
					>
					<span class="credit"
						>{mode === 'key' ? credit(option.credit) : ''}{#if option.pinned && mode === 'key'}<span class="faint">
								pinned</span
							>{/if}</span
					>
				</label>
			{/each}
		</div>
		{#if mode === 'key' && allOrNothing}<p class="mute mt-2 text-[13px]">
				All that are right, and no other, earn the points; else there are none.
			</p>{/if}
	{:else if question.kind === 'short-answer' || question.kind === 'numeric'}
		{#if mode === 'try'}
			<p class="mt-3">
				<input
					class="field"
					aria-label="Your answer"
					inputmode={question.kind === 'numeric' ? 'decimal' : 'text'}
					bind:value={text}
					oninput={clear}
					onkeydown={(event) => event.key === 'Enter' && give()}
				/>
			</p>
		{:else}
			<table class="rows mt-3">
				<tbody>
					{#each question.accepted as accepted, at (at)}
						<tr
							><td
								><span class="whole">{'text' in accepted ? visible(accepted.text) : acceptedNumberText(accepted)}</span>
								{#if 'match' in accepted && accepted.match}<span class="faint"
										>{accepted.match === 'pattern' ? 'as a pattern' : 'somewhere in the answer'}</span
									>{/if}
								{#if 'caseSensitive' in accepted && accepted.caseSensitive}<span class="faint">capitals matter</span
									>{/if}</td
							><td class="number mute">{accepted.credit >= 1 ? 'all points' : percentOf(accepted.credit)}</td></tr
						>
					{:else}<tr><td class="mute">No answer is accepted.</td></tr>{/each}
				</tbody>
			</table>
		{/if}
	{:else if question.kind === 'essay'}
		{#if mode === 'try'}<textarea class="field mt-3" rows="6" aria-label="Your answer" bind:value={text}
			></textarea>{:else}<p class="mute mt-3">Answered in writing, marked by a person.</p>{/if}
	{:else if question.kind === 'unreadable'}
		<div class="notice broken"><b>Kept as it came.</b> {question.reason}</div>
	{:else if question.kind !== 'information'}
		<KindView
			{question}
			{mode}
			answer={rest}
			{html}
			picture={addressOf}
			onanswer={(response) => {
				rest = response;
				if (mark) clear();
			}}
		/>
	{/if}

	{#if mode === 'try' && question.kind !== 'information' && question.kind !== 'unreadable' && question.kind !== 'file-upload'}
		<div class="mt-3 flex flex-wrap gap-2">
			<button class="button small" type="button" onclick={give}>Mark it</button>
			{#if onmark === undefined}
				<button
					class="button small ghost"
					type="button"
					disabled={!rightResponse(question)}
					onclick={() => answer(rightResponse(question))}>A right answer</button
				>
				<button
					class="button small ghost"
					type="button"
					disabled={!wrongResponse(question)}
					onclick={() => answer(wrongResponse(question))}>A wrong answer</button
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
	.options {
		margin-top: 12px;
		display: flex;
		flex-direction: column;
		gap: 6px;
	}
	.option {
		display: flex;
		gap: 10px;
		align-items: baseline;
		padding: 7px 10px;
		border: 1px solid var(--line);
		border-radius: 6px;
	}
	.option.key {
		border-color: var(--lichen);
		background: var(--lichen-soft);
	}
	.option.partly {
		border-style: dashed;
	}
	.option svg {
		width: 11px;
		height: 11px;
		flex: none;
		fill: none;
		stroke: var(--ink3);
		stroke-width: 2;
		transform: translateY(1px);
	}
	.option.key svg {
		stroke: var(--lichen);
	}
	.option input {
		transform: translateY(2px);
	}
	.option > .rich {
		flex: 1;
		min-width: 0;
	}
	.credit {
		color: var(--ink2);
		font-size: 13px;
		white-space: nowrap;
	}
	.told {
		display: block;
		color: var(--ink2);
		font-size: 13px;
	}
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
	textarea {
		width: 100%;
	}
</style>
