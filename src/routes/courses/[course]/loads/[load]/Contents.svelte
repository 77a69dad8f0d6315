<script lang="ts">
	import { pathKey, pathOfKey, putAt } from '$core/take-in/paths';
	import { pathText } from '$lib/ui/words';
	import type { Review } from './review.svelte';

	/** The categories of a load as a tree, each beside where it lands; a category is chosen, left out, or put elsewhere here. */
	let {
		review,
		category,
		pick,
		mayChange
	}: { review: Review; category: string | null; pick: (key: string | null) => void; mayChange: boolean } = $props();

	const known = $derived(new Set(review.existing));
	let placing = $state<string | null>(null);
	let dragged = $state<string | null>(null);
	let over = $state<string | null>(null);

	/** How wide the numbers are, in signs, so that the names have the rest. */
	const digits = $derived(review.tree.reduce((most, { all }) => Math.max(most, all.toLocaleString('en').length), 1));

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
	function drop(target: string) {
		if (dragged !== null && dragged !== target) review.put(dragged, review.land(pathOfKey(target)));
		dragged = over = null;
	}
</script>

<datalist id="landings">
	{#each review.existing as key (key)}<option value={asText(pathOfKey(key))}></option>{/each}
</datalist>
<table class="rows found">
	<colgroup><col /><col style="width: calc({digits}ch + 20px)" /><col class="lands" /></colgroup>
	<thead><tr><th>Category</th><th class="number">Q</th><th>Lands in</th></tr></thead>
	<tbody>
		{#each review.tree as line (line.key)}
			{@const on = review.under(line.key).some((key) => !review.decision.leftOut.includes(key))}
			{@const to = review.land(line.path)}
			{@const isNew = to.length > 0 && !known.has(pathKey(to))}
			{@const put = putAt(review.decision, line.key) !== undefined}
			<tr
				class:faint={!on}
				class:chosen={category === line.key}
				class:over={over === line.key}
				draggable={mayChange}
				ondragstart={(event) => {
					dragged = line.key;
					event.dataTransfer?.setData('text/plain', asText(line.path));
				}}
				ondragover={(event) => {
					if (dragged === null) return;
					event.preventDefault();
					over = line.key;
				}}
				ondragleave={() => (over = null)}
				ondrop={(event) => {
					event.preventDefault();
					drop(line.key);
				}}
				ondragend={() => (dragged = over = null)}
			>
				<td style="padding-left: {2 + Math.max(0, line.path.length - 1) * 14}px">
					<span class="flex items-center gap-2">
						<input
							type="checkbox"
							checked={on}
							disabled={!mayChange}
							aria-label="Take in {pathText(line.path)}"
							onchange={(event) => review.include(line.key, event.currentTarget.checked)}
						/>
						<button
							type="button"
							class="cut text-left"
							class:line-through={!on}
							title={pathText(line.path)}
							aria-pressed={category === line.key}
							onclick={() => pick(category === line.key ? null : line.key)}>{line.path.at(-1) ?? 'no category'}</button
						>
					</span>
				</td>
				<td class="number">{line.all.toLocaleString('en')}</td>
				<td class="text-[13px]"
					><span class="to">
						{#if placing === line.key}
							<!-- svelte-ignore a11y_autofocus -->
							<input
								class="field w-full"
								list="landings"
								autofocus
								aria-label="Where {pathText(line.path)} lands"
								value={asText(to)}
								onkeydown={(event) => {
									if (event.key === 'Enter') settle(line.key, event.currentTarget.value);
									if (event.key === 'Escape') placing = null;
								}}
								onblur={(event) => placing === line.key && settle(line.key, event.currentTarget.value)}
							/>
						{:else if !on}left out
						{:else}
							<button
								type="button"
								class="cut text-left {isNew ? 'whole' : 'mute'}"
								disabled={!mayChange || review.decision.categories === 'one'}
								title="{asText(to) || 'the bank itself'}{isNew
									? ', a new category'
									: ''}. Choose it to put it elsewhere"
								aria-label="{pathText(line.path)} lands in {asText(to) || 'the bank itself'}, change"
								onclick={() => (placing = line.key)}>{landing(line.path, to, isNew)}</button
							>{#if put}<button
									type="button"
									class="undo"
									aria-label="Let {pathText(line.path)} land by itself"
									title="as it was found"
									onclick={() => review.put(line.key, null)}>×</button
								>{/if}
						{/if}
					</span></td
				></tr
			>
		{/each}
	</tbody>
</table>

<style>
	.found {
		table-layout: fixed;
	}
	.found button {
		cursor: pointer;
		max-width: 100%;
	}
	.to {
		display: flex;
		align-items: center;
		gap: 4px;
		min-height: 20px;
	}
	.lands {
		width: 86px;
	}
	.over {
		background: var(--woad-soft);
	}
	.undo {
		padding: 0 5px;
		color: var(--ink3);
	}
	@media (max-width: 1120px) {
		.lands {
			width: 84px;
		}
	}
</style>
