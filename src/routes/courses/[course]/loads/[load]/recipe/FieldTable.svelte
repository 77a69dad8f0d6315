<script lang="ts">
	import type { Recipe } from '$core/formats/recipe/recipe';
	import type { PageData } from './$types';
	import { holderOf, inEntries, inRecords, meaningOf, withMeaning } from './meanings';

	/** The fields of a record, each with what stands in it and what it means. */
	let {
		fields,
		recipe,
		change
	}: {
		fields: Extract<PageData['sketch'], { fields: unknown }>['fields'];
		recipe: Recipe;
		change: (recipe: Recipe) => void;
	} = $props();
</script>

<div class="scroll mt-2">
	<table class="table">
		<thead><tr><th>Field</th><th>What stands in it</th><th>Means</th></tr></thead>
		<tbody>
			{#each fields as field (field.path)}
				{@const holder = holderOf(recipe, field)}
				{@const meaning = meaningOf(recipe, field)}
				<tr class:unmeant={!meaning}>
					<td class="mono whitespace-nowrap" style="padding-left: {8 + field.depth * 18}px"
						>{field.name}{#if field.list}<span class="faint" title="there may be several"> ×</span>{/if}</td
					>
					<td class="mute text-[13px]"
						>{#each field.examples.slice(0, field.depth ? 2 : 3) as example (example)}<span class="block"
								>{example}</span
							>{/each}</td
					>
					<td>
						<select
							class="select"
							aria-label="What “{field.path}” means"
							value={meaning}
							onchange={(event) =>
								change(withMeaning($state.snapshot(recipe) as Recipe, field, event.currentTarget.value))}
							><option value="">left out</option
							>{#each Object.entries(holder ? inEntries[holder]! : inRecords) as [value, words] (value)}<option {value}
									>{words}</option
								>{/each}</select
						>
					</td>
				</tr>
			{/each}
		</tbody>
	</table>
</div>

<style>
	.scroll {
		flex-shrink: 0;
		overflow-x: auto;
		border: 1px solid var(--line);
	}
	.unmeant {
		color: var(--ink3);
	}
</style>
