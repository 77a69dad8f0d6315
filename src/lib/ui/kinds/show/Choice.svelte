<script lang="ts">
	import type { ChoiceQuestion } from '$core/kinds';
	import { percentOf } from '../../percent';
	import type { Showing } from '../showing';

	/** The options of a choice: its key, or what can be ticked. Several answers have square marks, one has round ones. */
	let { question, mode, answer, onanswer, order, html }: Showing<ChoiceQuestion> = $props();

	const name = $props.id();
	const several = $derived(question.kind === 'multiple-response');
	const ticked = $derived(answer.options ?? []);
	const allOrNothing = $derived(several && question.combination === 'all');
	const credit = (value: number) =>
		value >= 1 || (allOrNothing && value > 0) ? 'key' : value === 0 || allOrNothing ? '' : percentOf(value);
	function tick(identifier: string, on: boolean) {
		if (!several) onanswer({ options: [identifier] });
		else onanswer({ options: on ? [...ticked, identifier] : ticked.filter((other) => other !== identifier) });
	}
</script>

<div class="options" role="group" aria-label="Options">
	{#each order ?? question.options.map((_, at) => at) as at (at)}
		{@const option = question.options[at]!}
		<label
			class="option"
			class:key={mode === 'key' && option.credit > 0}
			class:partly={mode === 'key' && option.credit > 0 && option.credit < 1 && !several}
		>
			{#if mode === 'try'}
				<input
					type={several ? 'checkbox' : 'radio'}
					name="{name}-answer"
					checked={ticked.includes(option.identifier)}
					onchange={(event) => tick(option.identifier, event.currentTarget.checked)}
				/>
			{:else}
				<svg viewBox="0 0 12 12" aria-hidden="true"
					>{#if several}<rect x="2.4" y="2.4" width="7.2" height="7.2" />{:else}<circle
							cx="6"
							cy="6"
							r="3.6"
						/>{/if}</svg
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
</style>
