<script lang="ts">
	import type { HotspotQuestion } from '$core/kinds';
	import type { Shape } from '$core/model/pieces';
	import type { Showing } from '../showing';
	import { creditInWords } from './credit';
	import NumberField from '../../NumberField.svelte';
	import Frame from './Frame.svelte';

	/** A picture to be pointed at, with its right places, or ways to point. */
	let { question, mode, answer, onanswer, picture }: Showing<HotspotQuestion> = $props();

	function point(at: [number, number]) {
		if (mode !== 'try' || question.mode !== 'points') return;
		onanswer({ ...answer, points: [...(question.picks === 1 ? [] : (answer.points ?? [])), at] });
	}
	function area(identifier: string, on: boolean) {
		const others = question.picks === 1 ? [] : (answer.options ?? []).filter((chosen) => chosen !== identifier);
		onanswer({ ...answer, options: on ? [...others, identifier] : others });
	}
	// a student does not see where the right place is
	const places = $derived(mode === 'key' || question.mode === 'areas' ? question.shapes : []);
	const isRight = (shape: Shape) =>
		mode === 'key' && question.shapes.some(({ identifier, credit }) => identifier === shape.identifier && credit > 0);
</script>

<Frame
	picture={question.picture}
	address={picture(question.picture.name)}
	{places}
	right={isRight}
	points={answer.points}
	onpoint={point}
/>
{#if mode === 'key'}
	<p class="mute mt-2 text-[13px]">
		{question.mode === 'areas' ? 'Areas to choose from' : 'Any point of the picture'}; {question.picks === 0
			? 'as many as one likes'
			: `${question.picks} at the most`}.
		{#each question.shapes as shape, at (shape.identifier)}
			<span class="block"
				>{at + 1}: {shape.shape}, {shape.credit > 0 ? 'right' : 'wrong'}, {creditInWords(shape.credit)}</span
			>
		{/each}
	</p>
{:else if question.mode === 'areas'}
	{#each question.shapes as shape, at (shape.identifier)}
		<label class="mr-4"
			><input
				type="checkbox"
				checked={(answer.options ?? []).includes(shape.identifier)}
				onchange={(event) => area(shape.identifier, event.currentTarget.checked)}
			/>
			area {at + 1}</label
		>
	{/each}
{:else}
	<p class="mt-2 flex items-center gap-2">
		<span class="mute">Point at the picture, or say where:</span>
		{#each ['across', 'down'] as name, at (name)}
			<NumberField
				live
				width="84px"
				label="Pixels {name}"
				bind:value={
					() => answer.points?.[0]?.[at] ?? null,
					(value) => {
						const [x, y] = answer.points?.[0] ?? [0, 0];
						onanswer({ ...answer, points: [at ? [x, value ?? 0] : [value ?? 0, y]] });
					}
				}
			/>
		{/each}
		<button type="button" class="btn btn-sm preset-outlined-brand" onclick={() => onanswer({ ...answer, points: [] })}
			>Clear</button
		>
	</p>
{/if}

<style>
</style>
