<script lang="ts">
	import type { Part } from '$lib/server/quizzes/quiz';
	import { restricts } from '$core/draws/conditions';
	import { dragPart } from '$lib/ui/drag';
	import Mark from '$lib/ui/Mark.svelte';
	import NumberField from '$lib/ui/NumberField.svelte';
	import { count } from '$lib/ui/words';
	import { Menu } from '@skeletonlabs/skeleton-svelte';
	import ChevronRight from '@lucide/svelte/icons/chevron-right';
	import EllipsisVertical from '@lucide/svelte/icons/ellipsis-vertical';
	import GripVertical from '@lucide/svelte/icons/grip-vertical';
	import X from '@lucide/svelte/icons/x';
	import { lostText, rangeText, type Sheet } from './sheet.svelte';

	/** One part of a quiz as a line of the draw sheet. */
	let { sheet, part, at, mayChange }: { sheet: Sheet; part: Part; at: number; mayChange: boolean } = $props();

	const look = $derived(sheet.looks[at]);
	const stops = $derived(sheet.found.state === 'unfillable' && sheet.found.stops.parts.includes(at));
	const choose = () => (sheet.chosen = at);
	const isOpen = $derived(at === sheet.chosen);
	const fold = () => (sheet.chosen = isOpen ? -1 : at);
	const order = { shuffled: 'questions shuffled', kept: 'in order', 'easy first': 'easy first' };
	const more = $derived(
		[
			order[part.order],
			part.shuffleOptions ? 'options shuffled' : 'options in order',
			...(restricts(part.conditions) ? ['only some of them'] : []),
			...(part.quotas.length ? ['balanced'] : []),
			...(part.include.length && part.categories.length ? [`${part.include.length} taken in`] : []),
			...(part.exclude.length ? [`${part.exclude.length} left out`] : [])
		].join(', ')
	);
	const choices = $derived([
		{ value: 'up', name: 'Move it up', off: at === 0 },
		{ value: 'down', name: 'Move it down', off: at === sheet.quiz.parts.length - 1 },
		{ value: 'copy', name: 'Copy it', off: false }
	]);
	function act(value: string) {
		if (value === 'copy') sheet.copy(at);
		else sheet.move(at, at + (value === 'up' ? -1 : 1));
	}
</script>

<tr
	class:chosen={isOpen}
	onclick={choose}
	{@attach dragPart({
		lift: () => (mayChange ? { sort: 'part', keys: [at] } : null),
		handle: '.grip',
		accepts: ({ sort }) => mayChange && sort === 'part',
		drop: ({ keys }) => sheet.move(Number(keys[0]), at)
	})}
>
	<td class="grip" title={mayChange ? 'Drag to another place' : undefined}
		>{#if mayChange}<GripVertical size={14} aria-hidden="true" />{/if}</td
	>
	<td
		><input
			class="input w-full"
			aria-label="Title of part {at + 1}"
			bind:value={part.title}
			disabled={!mayChange}
			maxlength="255"
			onfocus={choose}
		/></td
	>
	<td>
		<button
			type="button"
			class="fold"
			aria-expanded={isOpen}
			aria-label="{isOpen ? 'Fold' : 'Unfold'} part {at + 1}: {sheet.poolText(part)}"
			onclick={(event) => {
				event.stopPropagation();
				fold();
			}}
			><ChevronRight size={14} aria-hidden="true" class={isOpen ? 'rotate-90' : ''} /><span>{sheet.poolText(part)}</span
			></button
		>
		<span class="roomy mute block pl-[18px] text-[13px]">{more}</span>
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
		{#if stops}<span class="broken block text-[13px]" role="alert"
				><Mark severity="broken" word="Cannot be filled." /> {sheet.found.stops.message}</span
			>
		{:else if look && !look.holds}<span class="doubtful block text-[13px]"
				><Mark severity="doubtful" word="Its pool is empty." /> Choose categories that hold questions.</span
			>{/if}
	</td>
	<td class="number mute" title={look ? count(look.holds, 'question') : undefined}>{look?.holds ?? '…'}</td>
	<td class="number"
		><NumberField
			label="How many part {at + 1} draws"
			placeholder="all"
			whole
			least={1}
			most={10_000}
			bind:value={part.draw}
			disabled={!mayChange}
			focus={choose}
		/></td
	>
	<td class="number"
		><NumberField
			label="Points for each question of part {at + 1}"
			placeholder="its own"
			most={100_000}
			width="64px"
			bind:value={part.pointsEach}
			disabled={!mayChange}
			focus={choose}
		/></td
	>
	<td class="number"><b>{look ? rangeText(look.points) : '…'}</b></td>
	<td class="number whitespace-nowrap">
		{#if mayChange}
			<Menu onSelect={({ value }) => act(value)} positioning={{ placement: 'bottom-end' }}>
				<Menu.Trigger class="part-icon" aria-label="Move or copy part {at + 1}"
					><EllipsisVertical size={15} aria-hidden="true" /></Menu.Trigger
				>
				<Menu.Positioner class="over">
					<Menu.Content class="panel min-w-[150px]">
						{#each choices as choice (choice.value)}<Menu.Item
								value={choice.value}
								disabled={choice.off}
								class="choice-line">{choice.name}</Menu.Item
							>{/each}
					</Menu.Content>
				</Menu.Positioner>
			</Menu>
			<button
				type="button"
				class="part-icon"
				aria-label="Take part {at + 1} out"
				onclick={(event) => {
					event.stopPropagation();
					sheet.remove(at);
				}}><X size={15} /></button
			>
		{/if}
	</td>
</tr>

<style>
	button,
	:global(.part-icon) {
		cursor: pointer;
	}
	:global(.part-icon) {
		padding: 4px;
		min-width: 24px;
		min-height: 24px;
		color: var(--ink2);
	}
	.fold {
		display: inline-flex;
		align-items: baseline;
		gap: 4px;
		text-align: left;
	}
	.fold :global(svg) {
		flex: none;
		align-self: flex-start;
		margin-top: 4px;
		color: var(--ink3);
	}
	.grip {
		color: var(--ink3);
		cursor: grab;
		padding-inline: 4px;
	}
	tr:global([data-over]) td {
		box-shadow: inset 0 2px 0 var(--woad);
	}
</style>
