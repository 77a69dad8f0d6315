<script lang="ts">
	import type { Editing } from '../editing';
	import type { CalculatedQuestion, Variable } from '$core/kinds';
	import NumberField from '../../NumberField.svelte';
	import List from './List.svelte';
	import NumbersField from './NumbersField.svelte';

	/** The numbers of a calculated question, what must hold of them, and how the answer comes of them. */
	let { question = $bindable() }: Editing<CalculatedQuestion> = $props();

	const forms = { range: 'from, to', set: 'one of', expression: 'worked out' } as const;
	function change(variable: Variable, form: keyof typeof forms) {
		variable.values =
			form === 'range'
				? { form, min: 1, max: 10, step: 1 }
				: form === 'set'
					? { form, values: [1] }
					: { form, expression: '1' };
	}
	const lowest = -1e15;
</script>

<label
	>The answer
	<input
		class="input mono w-full"
		spellcheck="false"
		aria-label="The answer as an expression"
		bind:value={question.expression}
	/></label
>
<p class="flex items-center gap-2">
	give or take
	<NumberField
		live
		required
		width="80px"
		label="Tolerance"
		bind:value={() => question.tolerance.value, (value) => (question.tolerance.value = value ?? 0)}
	/>
	<select class="select" aria-label="How the tolerance counts" bind:value={question.tolerance.mode}
		><option value="absolute">in its own unit</option><option value="relative">as a share of the answer</option></select
	>
	<label class="ml-auto"><input type="checkbox" bind:checked={question.whole} /> whole</label>
</p>
<List
	bind:items={question.variables}
	what="number"
	head="Numbers"
	make={(): Variable => ({
		name: `v${question.variables.length + 1}`,
		whole: false,
		decimals: null,
		values: { form: 'range', min: 1, max: 10, step: 1 }
	})}
>
	{#snippet line(variable: Variable, at: number)}
		<input class="input mono w-16" spellcheck="false" aria-label="Name of number {at + 1}" bind:value={variable.name} />
		<select
			class="select"
			aria-label="Where number {at + 1} comes from"
			value={variable.values.form}
			onchange={(event) => change(variable, event.currentTarget.value as keyof typeof forms)}
			>{#each Object.entries(forms) as [form, words] (form)}<option value={form}>{words}</option>{/each}</select
		>
		{#if variable.values.form === 'range'}
			<NumberField
				live
				required
				width="64px"
				least={lowest}
				label="Least of number {at + 1}"
				bind:value={variable.values.min}
			/>
			<NumberField
				live
				required
				width="64px"
				least={lowest}
				label="Greatest of number {at + 1}"
				bind:value={variable.values.max}
			/>
			<NumberField
				live
				width="56px"
				least={lowest}
				placeholder="step"
				label="Step of number {at + 1}"
				bind:value={variable.values.step}
			/>
		{:else if variable.values.form === 'set'}
			<NumbersField label="Values of number {at + 1}" bind:values={variable.values.values} />
		{:else}<input
				class="input mono min-w-0 flex-1"
				spellcheck="false"
				aria-label="Expression of number {at + 1}"
				bind:value={variable.values.expression}
			/>{/if}
	{/snippet}
</List>
<List bind:items={question.constraints} what="condition" head="What must hold" make={() => ''}>
	{#snippet line(_: string, at: number)}
		<input
			class="input mono min-w-0 flex-1"
			spellcheck="false"
			aria-label="Condition {at + 1}"
			bind:value={question.constraints[at]}
		/>
	{/snippet}
</List>

<style>
	label,
	p {
		color: var(--ink2);
		font-size: 13px;
	}
</style>
