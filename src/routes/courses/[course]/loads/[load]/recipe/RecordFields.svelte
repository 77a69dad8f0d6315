<script lang="ts">
	import type { Recipe } from '$core/formats/recipe/recipe';
	import { count } from '$lib/ui/words';
	import type { PageData } from './$types';
	import FieldTable from './FieldTable.svelte';

	/** Where the questions of a file of records stand, and what their fields mean. */
	let {
		sketch,
		recipe = $bindable(),
		changeRules
	}: {
		sketch: Exclude<PageData['sketch'], { form: 'table' }>;
		recipe: Recipe;
		changeRules: (how: (recipe: Recipe) => void) => void;
	} = $props();
</script>

<label class="mt-3 block"
	>A question stands at
	<input
		class="input mono w-full"
		value={recipe.record ?? ''}
		onchange={(event) => (recipe = { ...($state.snapshot(recipe) as Recipe), record: event.currentTarget.value })}
	/></label
>
<p class="mute mt-1 text-[13px]">{count(sketch.records, 'entry', 'entries')} stand there.</p>
{#if sketch.form === 'json' && recipe.category === undefined}
	<label class="mt-2 block"
		>What stands around a question is a category, and is called by its
		<input
			class="input mono w-40"
			value={recipe.categoryFrom?.ancestors ?? ''}
			placeholder="no category"
			onchange={(event) =>
				changeRules((changed) => {
					if (event.currentTarget.value) changed.categoryFrom = { ancestors: event.currentTarget.value };
					else delete changed.categoryFrom;
				})}
		/></label
	>
{/if}
<FieldTable fields={sketch.fields} {recipe} change={(next) => (recipe = next)} />
