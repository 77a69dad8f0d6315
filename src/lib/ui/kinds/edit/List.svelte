<script lang="ts" generics="Item">
	import GripVertical from '@lucide/svelte/icons/grip-vertical';
	import { tick, type Snippet } from 'svelte';
	import { dragPart } from '../../drag';

	/** Things that are edited one under the other, each of which can be taken out; `what` is what one is called. */
	let {
		items = $bindable(),
		what,
		line,
		make,
		head = '',
		unit = ''
	}: {
		items: Item[];
		what: string;
		line: Snippet<[Item, number]>;
		/** A new one; without it, none can be added. */
		make?: () => Item;
		head?: string;
		unit?: string;
	} = $props();
	const id = $props.id();
	let box: HTMLDivElement | undefined = $state();

	function move(from: number, to: number) {
		if (to < 0 || to >= items.length || from === to) return;
		const next = [...items];
		const [moved] = next.splice(from, 1);
		next.splice(to, 0, moved!);
		items = next;
	}
	/** The arrow keys move what the handle belongs to; the focus goes along. */
	async function keys(event: KeyboardEvent, at: number) {
		const by = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' ? 1 : 0;
		if (!by) return;
		event.preventDefault();
		move(at, at + by);
		await tick();
		const handles = box?.querySelectorAll<HTMLElement>(':scope > .line > .grip');
		handles?.[Math.min(items.length - 1, Math.max(0, at + by))]?.focus();
	}
	const part = (at: number) =>
		dragPart({
			handle: '.grip',
			lift: () => ({ sort: `list ${id}`, keys: [at] }),
			accepts: ({ sort, keys: [from] }) => sort === `list ${id}` && from !== at,
			drop: ({ keys: [from] }) => move(Number(from), at)
		});
	const article = $derived(/^[aeiou]/.test(what) ? 'an' : 'a');
</script>

<div bind:this={box}>
	{#if head}<p class="flex justify-between"><span>{head}</span><span class="mute">{unit}</span></p>{/if}
	{#each items as item, at (at)}
		<div class="line" {@attach make && items.length > 1 ? part(at) : () => undefined}>
			{#if make && items.length > 1}<button
					type="button"
					class="grip"
					aria-label="Move {what} {at + 1} with the arrow keys"
					title="drag it, or move it with the arrow keys"
					onkeydown={(event) => keys(event, at)}><GripVertical size={14} /></button
				>{/if}
			{@render line(item, at)}
			{#if make}<button
					type="button"
					class="btn btn-sm preset-outlined-brand"
					aria-label="Take {what} {at + 1} out"
					onclick={() => (items = items.filter((_, place) => place !== at))}>×</button
				>{/if}
		</div>
	{/each}
	{#if make}<button
			type="button"
			class="btn btn-sm preset-outlined-brand mt-2"
			onclick={() => (items = [...items, make!()])}>Add {article} {what}</button
		>{/if}
</div>

<style>
	.grip {
		flex: none;
		width: 16px;
		height: 24px;
		color: var(--ink2);
		cursor: grab;
	}
	.line:global([data-over]) {
		box-shadow: 0 2px 0 var(--woad);
	}
	.line:global([data-dragged]) {
		opacity: 0.5;
	}
	.line {
		display: flex;
		align-items: center;
		gap: 6px;
		padding-top: 5px;
	}
	p {
		color: var(--ink2);
		font-size: 13px;
	}
</style>
