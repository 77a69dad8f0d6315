<script lang="ts">
	import type { Slips } from '$lib/server/forms';

	/** A field of a form with its label, what is said about it, and what is wrong with what was filled in. */
	let {
		label,
		name,
		value = '',
		form = null,
		of = '',
		hint = '',
		type = 'text',
		autocomplete = 'off',
		required = false,
		choices,
		width = '100%'
	}: {
		label: string;
		name: string;
		value?: string;
		/** The answer of the page's action, where there is one, and which form of the page this is. */
		form?: Slips | null | undefined;
		of?: string;
		hint?: string;
		type?: 'text' | 'email' | 'password' | 'number';
		autocomplete?: 'off' | 'name' | 'username' | 'new-password' | 'current-password';
		required?: boolean;
		/** What can be chosen, by value, where it is a list. */
		choices?: readonly (readonly [value: string, name: string])[];
		width?: string;
	} = $props();

	const id = $props.id();
	const mine = $derived(form?.form === of ? form : null);
	const slip = $derived(mine?.slips[name] ?? '');
	const shown = $derived(mine?.values[name] ?? value);
	const said = $derived([hint ? `${id}-hint` : '', slip ? `${id}-slip` : ''].filter(Boolean).join(' ') || undefined);
</script>

<div class="field" style="width: {width}">
	<label for={id}>{label}</label>
	{#if choices}
		<select {id} {name} class="select w-full" aria-describedby={said} aria-invalid={slip ? 'true' : undefined}>
			{#each choices as [choice, words] (choice)}<option value={choice} selected={choice === shown}>{words}</option
				>{/each}
		</select>
	{:else}
		<input
			{id}
			{name}
			{type}
			{autocomplete}
			{required}
			class="input w-full"
			value={shown}
			step={type === 'number' ? 'any' : undefined}
			aria-describedby={said}
			aria-invalid={slip ? 'true' : undefined}
		/>
	{/if}
	{#if hint}<p class="mute" id="{id}-hint">{hint}</p>{/if}
	{#if slip}<p class="broken" id="{id}-slip" role="alert">{slip}</p>{/if}
</div>

<style>
	.field {
		display: flex;
		flex-direction: column;
		gap: 2px;
	}
	label {
		font-size: 13px;
		color: var(--ink2);
	}
	p {
		font-size: 12.5px;
	}
	[aria-invalid] {
		border-color: var(--madder);
	}
</style>
