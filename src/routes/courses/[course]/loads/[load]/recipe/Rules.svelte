<script lang="ts">
	import { lookup } from '$core/model/lookup';
	import type { TableRecipe, Recipe } from '$core/formats/recipe/recipe';
	import { kinds, kindName } from '$core/kinds';

	/** The rules of a recipe that are no places: how keys, categories, credit and the file's own words are read. */
	let {
		rules,
		hasOptions,
		splitOptions,
		hasCredit,
		kindWords,
		shuffleWords,
		truthWords,
		change
	}: {
		rules: TableRecipe & Pick<Recipe, 'creditScale'>;
		hasOptions: boolean;
		splitOptions: boolean;
		hasCredit: boolean;
		/** The words that stand where the kind, the shuffle and the truth are read. */
		kindWords: string[];
		shuffleWords: string[];
		truthWords: string[];
		change: (how: (rules: TableRecipe & Pick<Recipe, 'creditScale'>) => void) => void;
	} = $props();

	const forms = {
		letter: 'letters (A is the first)',
		index: 'numbers from 1',
		index0: 'numbers from 0',
		text: "the option's own text"
	} as const;
	const others = ['letter', 'text', 'truth', 'answer'] as const;
	const optionSigns: [string, string][] = [
		['|', '|'],
		[';', ';'],
		[',', ','],
		['/', '/'],
		['\n', 'a line end']
	];
	/** Signs that are parted by blanks in a box for them. */
	const signs = (text: string) => text.split(/\s+/).filter(Boolean);

	function word(name: 'kinds' | 'shuffleWords' | 'truthWords', word: string, value: string) {
		change((changed) => {
			const all = lookup<string | boolean>({ ...changed[name] });
			if (value === '') Reflect.deleteProperty(all, word);
			else all[word] = name === 'kinds' ? value : value === 'yes';
			if (Object.keys(all).length) Object.assign(changed, { [name]: all });
			else Reflect.deleteProperty(changed, name);
		});
	}
	const truth = (value: boolean | undefined) => (value === undefined ? '' : value ? 'yes' : 'no');
</script>

<div class="rules mt-3">
	{#if hasOptions}
		<label
			>A key names options by
			<select
				class="select"
				value={rules.keyForms?.find((form) => form in forms) ?? 'letter'}
				onchange={(event) =>
					change((changed) => {
						const form = event.currentTarget.value as keyof typeof forms;
						changed.keyForms = [form, ...others.filter((other) => other !== form)];
					})}
				>{#each Object.entries(forms) as [form, words] (form)}<option value={form}>{words}</option>{/each}</select
			></label
		>
	{/if}
	{#if splitOptions}
		<label
			>Options are parted by
			<select
				class="select"
				value={rules.optionSeparator ?? '|'}
				onchange={(event) => change((changed) => (changed.optionSeparator = event.currentTarget.value))}
				>{#each optionSigns as [sign, words] (sign)}<option value={sign}>{words}</option>{/each}</select
			></label
		>
	{/if}
	{#if hasCredit}
		<label
			>A full credit is written as
			<select
				class="select"
				value={rules.creditScale ?? 'fraction'}
				onchange={(event) => change((changed) => (changed.creditScale = event.currentTarget.value as 'percent'))}
				><option value="fraction">1</option><option value="percent">100</option></select
			></label
		>
	{/if}
	<label
		>Several keys are parted by
		<input
			class="input w-20 mono"
			value={(rules.keySeparators ?? []).join(' ')}
			placeholder="; ,"
			onchange={(event) =>
				change((changed) => {
					const given = signs(event.currentTarget.value);
					if (given.length) changed.keySeparators = given;
					else delete changed.keySeparators;
				})}
		/></label
	>
	<label
		>Categories are parted by
		<input
			class="input w-20 mono"
			value={(rules.categorySeparators ?? []).join(' ')}
			placeholder="/ >"
			onchange={(event) =>
				change((changed) => {
					const given = signs(event.currentTarget.value);
					if (given.length) changed.categorySeparators = given;
					else delete changed.categorySeparators;
				})}
		/></label
	>
	<label
		>Stems are
		<select
			class="select"
			value={rules.stemForm ?? ''}
			onchange={(event) =>
				change((changed) => {
					if (event.currentTarget.value) changed.stemForm = event.currentTarget.value as 'HTML';
					else delete changed.stemForm;
				})}
			><option value="">as they look</option><option value="text">plain text</option><option value="HTML">HTML</option
			></select
		></label
	>
</div>
{#if kindWords.length || shuffleWords.length || truthWords.length}
	<div class="rules mt-2" role="group" aria-label="Words of the file">
		{#each kindWords as changed (changed)}<label
				>“{changed}” is
				<select
					class="select"
					value={rules.kinds?.[changed] ?? ''}
					onchange={(event) => word('kinds', changed, event.currentTarget.value)}
					><option value="">as it reads</option>{#each kinds as kind (kind)}<option value={kind}
							>{kindName(kind)}</option
						>{/each}</select
				></label
			>{/each}
		{#each [['shuffleWords', shuffleWords, 'shuffle'], ['truthWords', truthWords, 'true']] as const as [name, words, what] (name)}
			{#each words as changed (changed)}<label
					>“{changed}” for {what} is
					<select
						class="select"
						value={truth(rules[name]?.[changed])}
						onchange={(event) => word(name, changed, event.currentTarget.value)}
						><option value="">as it reads</option><option value="yes">yes</option><option value="no">no</option></select
					></label
				>{/each}
		{/each}
	</div>
{/if}

<style>
	.rules {
		display: flex;
		flex-wrap: wrap;
		gap: 8px 18px;
	}
</style>
