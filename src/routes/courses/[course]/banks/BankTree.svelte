<script lang="ts">
	import type { CategoryNode } from '$lib/server/banks/tree';
	import CategoryTree from '$lib/ui/CategoryTree.svelte';
	import { count, figure } from '$lib/ui/words';

	/** The categories of a bank with their counts; `null` is the bank as a whole. */
	let {
		tree,
		questions,
		chosen,
		choose,
		label
	}: {
		tree: CategoryNode[];
		/** How many questions are in the whole bank. */
		questions: number;
		chosen: number | null;
		choose: (id: number | null) => void;
		label: string;
	} = $props();

	const whole = 'whole';
	const nodes = $derived([
		{ id: whole, parentId: null, name: 'Whole bank', own: 0, all: questions, snags: 0 },
		...tree.map((node) => ({
			id: String(node.id),
			parentId: node.parentId === null ? null : String(node.parentId),
			name: node.name,
			own: node.own,
			all: node.all,
			snags: node.allSnags
		}))
	]);
	/** As wide as the longest number. */
	const digits = $derived(figure(questions).length);
</script>

<CategoryTree
	{nodes}
	chosen={chosen === null ? whole : String(chosen)}
	choose={(id) => choose(id === whole ? null : Number(id))}
	{label}
	columns="max({digits}ch, 30px) max({digits}ch, 30px)"
>
	{#snippet head()}<span>Category</span><span class="text-right">here</span><span class="text-right">all</span
		>{/snippet}
	{#snippet line(node: (typeof nodes)[number])}
		<span class="cut" class:font-bold={node.id === whole} title={node.name}
			>{node.name}{#if node.snags}<span class="doubtful snags" title={count(node.snags, 'snag')}
					>~{figure(node.snags)}<span class="visually-hidden"> snags</span></span
				>{/if}</span
		>
		<span class="mute text-right">{node.own ? figure(node.own) : ''}</span>
		<span class="text-right">{figure(node.all)}</span>
	{/snippet}
</CategoryTree>

<style>
	.snags {
		margin-left: 6px;
		font-size: 12px;
	}
</style>
