<script lang="ts">
	import type { CategoryNode } from '$lib/server/banks/tree';
	import CategoryTree from '$lib/ui/CategoryTree.svelte';
	import type { DragPart } from '$lib/ui/drag';
	import { count, figure } from '$lib/ui/words';

	/** The categories of a bank with their counts; `null` is the bank as a whole. What is dragged onto one goes there. */
	let {
		tree,
		questions,
		chosen,
		choose,
		label,
		drop
	}: {
		tree: CategoryNode[];
		/** How many questions are in the whole bank. */
		questions: number;
		chosen: number | null;
		choose: (id: number | null) => void;
		label: string;
		/** Takes categories or questions that were let go on a category; nothing where nothing may be changed. */
		drop?: (sort: 'category' | 'question', keys: number[], onto: number | null) => void;
	} = $props();

	const whole = 'whole';
	const nodes = $derived([
		{ id: whole, parentId: null, name: 'Whole bank', code: '', own: 0, all: questions, snags: 0 },
		...tree.map((node) => ({
			id: String(node.id),
			parentId: node.parentId === null ? null : String(node.parentId),
			name: node.name,
			code: node.code,
			own: node.own,
			all: node.all,
			snags: node.allSnags
		}))
	]);
	/** As wide as the longest of some numbers; a comma is narrower than a figure. */
	function width(numbers: number[]): string {
		const longest = figure(Math.max(0, ...numbers));
		const commas = longest.split(',').length - 1;
		return `max(${longest.length - 0.6 * commas}ch, 30px)`;
	}
	/** Where nothing stands under anything, what a category has in it is all that it has. */
	const isNested = $derived(tree.some(({ parentId }) => parentId !== null));
	const widths = $derived(`${isNested ? `${width(tree.map(({ own }) => own))} ` : ''}${width([questions])}`);
	const keyOf = (id: string) => (id === whole ? null : Number(id));

	function dragOf({ id }: { id: string }): DragPart {
		if (!drop) return {};
		return {
			lift: () => (id === whole ? null : { sort: 'category', keys: [Number(id)] }),
			accepts: ({ sort, keys }) => sort === 'question' || (sort === 'category' && !keys.includes(Number(id))),
			drop: ({ sort, keys }) => drop(sort as 'category' | 'question', keys.map(Number), keyOf(id))
		};
	}
</script>

<CategoryTree
	{nodes}
	chosen={chosen === null ? whole : String(chosen)}
	choose={(id) => choose(keyOf(id))}
	{label}
	columns={widths}
	{...drop ? { drag: dragOf } : {}}
>
	{#snippet head()}<span>Category</span>{#if isNested}<span class="text-right">here</span>{/if}<span class="text-right"
			>all</span
		>{/snippet}
	{#snippet line(node: (typeof nodes)[number])}
		<span class="flex min-w-0 items-baseline" class:font-bold={node.id === whole}
			><span class="cut" title={node.code ? `${node.name} (${node.code})` : node.name}>{node.name}</span
			>{#if node.snags}<span class="doubtful snags" title={count(node.snags, 'snag')}
					>~{figure(node.snags)}<span class="visually-hidden"> snags</span></span
				>{/if}</span
		>
		{#if isNested}<span class="mute text-right">{node.own ? figure(node.own) : ''}</span>{/if}
		<span class="text-right">{figure(node.all)}</span>
	{/snippet}
</CategoryTree>

<style>
	.snags {
		/* what is read out of it is cut off with it, where the name is long */
		position: relative;
		margin-left: 6px;
		font-size: 12px;
	}
</style>
