<script lang="ts">
	import { theForm } from './filled-in';

	/** A field of a form with its label, what is said about it, and what is wrong with what was filled in. */
	let {
		label,
		name,
		value = '',
		hint = '',
		type = 'text',
		inputmode,
		autocomplete = 'off',
		required = false,
		choices,
		placeholder,
		width = '100%'
	}: {
		label: string;
		name: string;
		value?: string;
		hint?: string;
		type?: 'text' | 'email' | 'password';
		inputmode?: 'decimal';
		autocomplete?: 'off' | 'name' | 'username' | 'new-password' | 'current-password';
		required?: boolean;
		/** What can be chosen, by value, where it is a list. */
		choices?: readonly (readonly [value: string, name: string])[];
		/** Words in the empty field, where its label is for screen readers alone. */
		placeholder?: string;
		width?: string;
	} = $props();

	const id = $props.id();
	const form = theForm();
	const slip = $derived(form.slipOf(name));
	// bound, so that what is written before the page is alive stays when it comes alive
	let written = $derived(form.valueOf(name) ?? value);
	const said = $derived([hint ? `${id}-hint` : '', slip ? `${id}-slip` : ''].filter(Boolean).join(' ') || undefined);
</script>

<div class="field" style="width: {width}">
	<label for={id} class:visually-hidden={placeholder !== undefined}>{label}</label>
	{#if choices}
		<select
			{id}
			{name}
			class="select w-full"
			bind:value={written}
			aria-describedby={said}
			aria-invalid={slip ? 'true' : undefined}
		>
			{#each choices as [choice, words] (choice)}<option value={choice}>{words}</option>{/each}
		</select>
	{:else}
		<input
			{id}
			{name}
			{type}
			{autocomplete}
			{required}
			{placeholder}
			class="input w-full"
			bind:value={written}
			{inputmode}
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
