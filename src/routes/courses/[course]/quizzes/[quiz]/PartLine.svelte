<script lang="ts">
	import type { Part } from '$lib/server/quizzes/quiz';
	import Mark from '$lib/ui/Mark.svelte';
	import ArrowDown from '@lucide/svelte/icons/arrow-down';
	import ArrowUp from '@lucide/svelte/icons/arrow-up';
	import X from '@lucide/svelte/icons/x';
	import { lostText, rangeText, type Sheet } from './sheet.svelte';

	/** One part of a quiz as a line of the draw sheet. */
	let { sheet, part, at, mayChange }: { sheet: Sheet; part: Part; at: number; mayChange: boolean } = $props();

	const refusal = $derived(sheet.refusals.find((other) => other.part === at));
	const choose = () => (sheet.chosen = at);
	function whole(text: string, least: number): number | null {
		const value = Number(text);
		return text.trim() === '' || !Number.isFinite(value) ? null : Math.max(least, value);
	}
	const doing = (act: () => void) => (event: MouseEvent) => {
		event.stopPropagation();
		act();
	};
</script>

<tr class:chosen={at === sheet.chosen} onclick={choose}>
	<td
		><input
			class="input w-full"
			aria-label="Title of part {at + 1}"
			bind:value={part.title}
			disabled={!mayChange}
			onfocus={choose}
		/></td
	>
	<td>
		<button type="button" class="text-left" onclick={choose}>{sheet.poolText(part)}</button>
		<span class="roomy mute block text-[13px]"
			>{part.shuffleQuestions ? 'questions shuffled' : 'in order'}, {part.shuffleOptions
				? 'options shuffled'
				: 'options in order'}</span
		>
		{#each part.lost as gone (gone.id)}<span class="doubtful block text-[13px]"
				><Mark severity="doubtful" word="Gone:" />
				{lostText(gone)}{#if mayChange}
					<button
						type="button"
						class="word"
						aria-label="Do not wait for {lostText(gone)}"
						onclick={() => (part.lost = part.lost.filter((other) => other.id !== gone.id))}>forget it</button
					>{/if}</span
			>{/each}
		{#if refusal}<span class="broken block text-[13px]" role="alert"
				><Mark severity="broken" word="Cannot be filled." /> {refusal.message}</span
			>{/if}
	</td>
	<td class="number whitespace-nowrap"
		><input
			class="input w-14 text-right"
			inputmode="numeric"
			aria-label="How many part {at + 1} draws"
			placeholder="all"
			value={part.draw ?? ''}
			disabled={!mayChange}
			onfocus={choose}
			onchange={(event) => {
				const value = whole(event.currentTarget.value, 1);
				part.draw = value === null ? null : Math.round(value);
			}}
		/> <span class="mute">of {sheet.pools[at]!.length}</span></td
	>
	<td class="number"
		><input
			class="input w-16 text-right"
			inputmode="decimal"
			aria-label="Points for each question of part {at + 1}"
			placeholder="its own"
			value={part.pointsEach ?? ''}
			disabled={!mayChange}
			onfocus={choose}
			onchange={(event) => (part.pointsEach = whole(event.currentTarget.value, 0))}
		/></td
	>
	<td class="number"><b>{rangeText(sheet.ranges[at]!)}</b></td>
	<td class="number whitespace-nowrap">
		{#if mayChange}
			<button
				type="button"
				class="icon"
				aria-label="Move part {at + 1} up"
				disabled={at === 0}
				onclick={doing(() => sheet.move(at, -1))}><ArrowUp size={15} /></button
			>
			<button
				type="button"
				class="icon"
				aria-label="Move part {at + 1} down"
				disabled={at === sheet.quiz.parts.length - 1}
				onclick={doing(() => sheet.move(at, 1))}><ArrowDown size={15} /></button
			>
			<button type="button" class="icon" aria-label="Take part {at + 1} out" onclick={doing(() => sheet.remove(at))}
				><X size={15} /></button
			>
		{/if}
	</td>
</tr>

<style>
	button {
		cursor: pointer;
	}
	.icon {
		padding: 4px;
		min-width: 24px;
		color: var(--ink2);
	}
	.icon:disabled {
		opacity: 0.3;
	}
</style>
