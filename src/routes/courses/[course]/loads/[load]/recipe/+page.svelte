<script lang="ts">
	import type { Columns, Recipe } from '$core/formats/recipe/recipe';
	import type { Question } from '$core/kinds';
	import Segments from '$lib/ui/Segments.svelte';
	import Halves from '$lib/ui/Halves.svelte';
	import { count } from '$lib/ui/words';
	import { untrack } from 'svelte';
	import MeantTable from './MeantTable.svelte';
	import { meaningOf, severalColumns, type Meaning } from './meanings';
	import Preview from './Preview.svelte';
	import RecordFields from './RecordFields.svelte';
	import Rules from './Rules.svelte';
	import { enhance } from '$lib/ui/refresh';

	let { data, form } = $props();

	const start = untrack(() => data.sketch);
	let recipe = $state<Recipe>(untrack(() => structuredClone($state.snapshot(start.recipe ?? {}) as Recipe)));
	let sheet = $state(0);
	let name = $state('');
	let preview = $state<{ questions: Question[]; count: number; broken: number; reports: string[] } | null>(null);
	let trouble = $state('');
	let looking = $state(false);

	const table = $derived(data.sketch.form === 'table' ? data.sketch.tables[sheet] : undefined);
	/** The part of the recipe that speaks of the table that is shown. */
	const part = $derived(table?.name ? (recipe.sheets?.find(({ sheet }) => sheet === table.name) ?? null) : recipe);
	const headings = $derived(table ? (table.headings[part?.headerRow ?? 0] ?? table.headings[0]!) : []);
	function columnMeaning(heading: string): Meaning | '' {
		const columns = part?.columns ?? {};
		for (const [meaning, value] of Object.entries(columns))
			if (Array.isArray(value) ? value.includes(heading) : value === heading) return meaning as Meaning;
		return '';
	}
	function change(next: (changed: Recipe) => void) {
		const copy = $state.snapshot(recipe) as Recipe;
		if (table?.name) {
			copy.sheets ??= [];
			let own = copy.sheets.find(({ sheet }) => sheet === table.name);
			if (!own) copy.sheets.push((own = { sheet: table.name, headerRow: 1, columns: {} }));
			copy.sheetsWithoutQuestions = copy.sheetsWithoutQuestions?.filter((sheet) => sheet !== table.name);
			next(own as Recipe);
		} else next(copy);
		recipe = copy;
	}
	function mean(heading: string, meaning: Meaning | '') {
		change((changed) => {
			const columns = { ...changed.columns } as Record<string, string | string[]>;
			for (const [key, value] of Object.entries(columns)) {
				if (Array.isArray(value)) columns[key] = value.filter((other) => other !== heading);
				else if (value === heading) Reflect.deleteProperty(columns, key);
				if (Array.isArray(columns[key]) && !columns[key].length) Reflect.deleteProperty(columns, key);
			}
			if (severalColumns.includes(meaning)) {
				const list = [columns[meaning] ?? []].flat().concat(heading);
				const these = headings.filter((other) => list.includes(other));
				columns[meaning] = ['options', 'key'].includes(meaning) && these.length === 1 ? these[0]! : these;
			} else if (meaning) columns[meaning] = heading;
			changed.columns = columns as Columns;
			changed.keyForms = undefined;
			delete changed.keyForms;
		});
	}
	/** The words that stand in the column or the field of a meaning, where they are few. */
	function wordsOf(meaning: string): string[] {
		if (data.sketch.form !== 'table')
			return data.sketch.fields.find((field) => meaningOf(recipe, field) === meaning)?.words ?? [];
		const at = headings.findIndex((heading) => columnMeaning(heading) === meaning);
		const head = table?.rows[(part?.headerRow ?? 0) - 1]?.[at];
		return (table?.words[at] ?? []).filter((word) => word !== head);
	}
	const rules = $derived({
		kindWords: wordsOf('kind'),
		shuffleWords: wordsOf('shuffle'),
		truthWords: wordsOf('truth')
	});
	/** Changes rules in the recipe, or in the part of it that speaks of the sheet that is shown. */
	function changeRules(how: (changed: Recipe) => void) {
		if (data.sketch.form === 'table') change(how);
		else {
			const copy = $state.snapshot(recipe) as Recipe;
			how(copy);
			recipe = copy;
		}
	}

	$effect(() => {
		const body = JSON.stringify(recipe);
		const timer = setTimeout(async () => {
			looking = true;
			try {
				const answer = await fetch(`/courses/${data.course.id}/loads/${data.load.id}/recipe/preview`, {
					method: 'POST',
					headers: { 'Content-Type': 'application/json', Accept: 'application/json' },
					body
				});
				const found = (await answer.json()) as NonNullable<typeof preview> & { message?: string };
				trouble = answer.ok ? '' : (found.message ?? 'The recipe cannot be used.');
				if (answer.ok) preview = found;
			} catch {
				trouble = 'The server does not answer. Look at the connection.';
			}
			looking = false;
		}, 250);
		return () => clearTimeout(timer);
	});
</script>

<svelte:head><title>Recipe for {data.load.file_name} · Yarn Barrow</title></svelte:head>
<Halves leftName="What is what" rightName="Questions found so far" columns="minmax(0, 3fr) minmax(0, 2fr)">
	{#snippet left()}
		<p class="mute"><a class="word" href="/courses/{data.course.id}/loads">Loads</a> › {data.load.file_name}</p>
		<h1>Say what is what</h1>
		{#if data.saved.length}
			<label class="mt-2 block"
				>Saved recipe
				<select
					class="select"
					onchange={(event) => {
						const found = data.saved.find(({ id }) => id === Number(event.currentTarget.value));
						if (found) {
							recipe = structuredClone(found.recipe);
							name = found.name;
						}
					}}
					><option value="">choose one</option>{#each data.saved as saved (saved.id)}<option value={saved.id}
							>{saved.name}</option
						>{/each}</select
				></label
			>
		{/if}
		{#if data.sketch.form === 'table'}
			{#if data.sketch.tables.length > 1}
				<div class="mt-3">
					<Segments
						bind:value={() => String(sheet), (chosen) => (sheet = Number(chosen))}
						choices={data.sketch.tables.map((found, at) => ({ value: String(at), name: found.name }))}
						label="Sheets"
					/>
				</div>
			{/if}
			{#if table}
				<MeantTable
					rows={table.rows}
					{headings}
					headerRow={part?.headerRow ?? 0}
					{columnMeaning}
					{mean}
					setHeaderRow={(row) => change((own) => (own.headerRow = row))}
				/>
				<Rules
					rules={part ?? {}}
					hasOptions={part?.columns?.options !== undefined}
					splitOptions={typeof part?.columns?.options === 'string'}
					hasCredit={false}
					{...rules}
					change={changeRules}
				/>
			{/if}
		{:else}
			<RecordFields sketch={data.sketch} bind:recipe {changeRules} />
			<Rules
				rules={recipe}
				hasOptions={recipe.options !== undefined && recipe.key !== undefined}
				splitOptions={false}
				hasCredit={recipe.credit !== undefined || recipe.acceptedCredit !== undefined}
				{...rules}
				change={changeRules}
			/>
		{/if}
	{/snippet}
	{#snippet right()}
		<Preview {preview} {trouble} {looking} courseId={data.course.id} />
	{/snippet}
	{#snippet bar()}
		<form method="POST" use:enhance>
			<input type="hidden" name="recipe" value={JSON.stringify(recipe)} />
			<span class="mr-auto"
				>{form?.message
					? ''
					: preview
						? `Read ${data.load.file_name} by this recipe: ${count(preview.count, 'question')}.`
						: ''}
				{#if form?.message}<span class="broken" role="alert">{form.message}</span>{/if}</span
			>
			<label
				>Save it as <input class="input" name="name" bind:value={name} maxlength="120" placeholder="not saved" /></label
			>
			<button class="btn preset-filled-brand" disabled={!preview?.count}>Read by this recipe</button>
		</form>
	{/snippet}
</Halves>
