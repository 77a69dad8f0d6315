<script lang="ts">
	import { pathKey, pathOfKey, putAt } from '$core/take-in/paths';
	import CategoryTree from '$lib/ui/CategoryTree.svelte';
	import type { DragPart } from '$lib/ui/drag';
	import { figure, pathText } from '$lib/ui/words';
	import type { FoundCategory, Review } from './review.svelte';

	/** The categories of a load as a tree, each beside where it lands; a category is chosen, left out, or put elsewhere here. */
	let {
		review,
		category,
		pick,
		mayChange
	}: { review: Review; category: string | null; pick: (key: string | null) => void; mayChange: boolean } = $props();

	const whole = 'whole';
	const sort = 'found category';
	const known = $derived(new Set(review.existing));
	let placing = $state<string | null>(null);

	interface Line {
		id: string;
		parentId: string | null;
		name: string;
		/** Nothing for the load as a whole. */
		found: FoundCategory | null;
	}
	/** Keys of lines: a path that is empty has one too. */
	const idOf = (key: string) => `at ${key}`;
	const lines = $derived<Line[]>([
		{ id: whole, parentId: null, name: 'All of it', found: null },
		...review.tree.map((found) => ({
			id: idOf(found.key),
			parentId: found.path.length > 1 ? idOf(pathKey(found.path.slice(0, -1))) : null,
			name: found.path.at(-1) ?? 'no category',
			found
		}))
	]);
	/** As wide as the longest number. */
	const digits = $derived(figure(review.summary.found).length);

	const asText = (path: string[]) => path.join(' / ');
	const asPath = (text: string) =>
		text
			.split('/')
			.map((step) => step.trim())
			.filter(Boolean);
	/** Where a category lands in a word or two: its own name is not said twice. */
	function landing(path: string[], to: string[], isNew: boolean): string {
		if (to.length && to.at(-1) === path.at(-1)) return isNew ? '+ new' : 'is there';
		return `${isNew ? '+ ' : ''}${to.at(-1) ?? 'in the bank'}`;
	}
	function settle(key: string, text: string) {
		placing = null;
		const path = asPath(text);
		if (pathKey(path) !== pathKey(review.land(pathOfKey(key)))) review.put(key, path);
	}
	const movable = $derived(mayChange && review.decision.categories !== 'one');
	/** A category is put where another lands by being dragged onto it; by keyboard its landing is chosen and written. */
	function drag({ found }: Line): DragPart {
		if (!found) return {};
		return {
			lift: () => (movable ? { sort, keys: [found.key] } : null),
			accepts: (dragged) => dragged.sort === sort && dragged.keys[0] !== found.key,
			drop: ({ keys }) => review.put(String(keys[0]), review.land(found.path))
		};
	}
</script>

<datalist id="landings">
	{#each review.existing as key (key)}<option value={asText(pathOfKey(key))}></option>{/each}
</datalist>
<CategoryTree
	nodes={lines}
	chosen={category === null ? whole : idOf(category)}
	choose={(id) => pick(lines.find((line) => line.id === id)?.found?.key ?? null)}
	label="Categories of the load"
	columns="max({digits}ch, 26px) 84px"
	{drag}
>
	{#snippet head()}<span>Category</span><span class="text-right">Q</span><span>Lands in</span>{/snippet}
	{#snippet line({ name, found }: Line)}
		{#if found}
			{@const on = review.under(found.key).some((key) => !review.decision.leftOut.includes(key))}
			<span class="flex min-w-0 items-center gap-2" class:faint={!on}>
				<input
					type="checkbox"
					class="checkbox"
					checked={on}
					disabled={!mayChange}
					aria-label="Take in {pathText(found.path)}"
					onclick={(event) => event.stopPropagation()}
					onchange={(event) => review.include(found.key, event.currentTarget.checked)}
				/>
				<span class="cut" class:line-through={!on} title={pathText(found.path)}>{name}</span>
			</span>
			<span class="text-right" class:faint={!on}>{figure(found.all)}</span>
			<span class="to text-[13px]"
				>{#if on}{@render lands(found)}{:else}left out{/if}</span
			>
		{:else}
			<span class="cut font-bold">{name}</span><span class="text-right">{figure(review.summary.found)}</span><span
			></span>
		{/if}
	{/snippet}
</CategoryTree>

{#snippet lands(found: FoundCategory)}
	{@const to = review.land(found.path)}
	{@const isNew = to.length > 0 && !known.has(pathKey(to))}
	{#if placing === found.key}
		<!-- svelte-ignore a11y_autofocus -->
		<input
			class="input w-full"
			list="landings"
			autofocus
			aria-label="Where {pathText(found.path)} lands"
			value={asText(to)}
			onclick={(event) => event.stopPropagation()}
			onkeydown={(event) => {
				if (event.key === 'Enter') settle(found.key, event.currentTarget.value);
				if (event.key === 'Escape') placing = null;
			}}
			onblur={(event) => placing === found.key && settle(found.key, event.currentTarget.value)}
		/>
	{:else}
		<button
			type="button"
			class="cut text-left {isNew ? 'whole' : 'mute'}"
			disabled={!movable}
			title="{asText(to) || 'the bank itself'}{isNew ? ', a new category' : ''}. Choose it to put it elsewhere"
			aria-label="{pathText(found.path)} lands in {asText(to) || 'the bank itself'}, change"
			onclick={(event) => {
				event.stopPropagation();
				placing = found.key;
			}}>{landing(found.path, to, isNew)}</button
		>{#if putAt(review.decision, found.key) !== undefined}<button
				type="button"
				class="undo"
				aria-label="Let {pathText(found.path)} land by itself"
				title="as it was found"
				onclick={(event) => {
					event.stopPropagation();
					review.put(found.key, null);
				}}>×</button
			>{/if}
	{/if}
{/snippet}

<style>
	.to {
		display: flex;
		align-items: center;
		gap: 4px;
		min-width: 0;
		min-height: 20px;
	}
	.to button {
		cursor: pointer;
		max-width: 100%;
	}
	.undo {
		padding: 0 5px;
		color: var(--ink3);
	}
</style>
