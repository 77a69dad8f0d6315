<script lang="ts">
	import { validateSchema } from '@felte/validator-yup';
	import type { Slips } from '$lib/server/forms';
	import { createForm } from 'felte';
	import { tick, type Snippet } from 'svelte';
	import type { AnyObjectSchema } from 'yup';
	import { setTheForm } from './filled-in';
	import { enhance } from './refresh';

	/**
	 * A form that is filled in by a schema, the same here and in the action that it is sent to: what is wrong stands
	 * beside its field as soon as that is left, and nothing is sent before all is well.
	 */
	let {
		schema,
		action,
		name,
		answer = null,
		keeps = false,
		send,
		busy = $bindable(false),
		class: look = 'flex flex-col gap-3',
		children
	}: {
		schema: AnyObjectSchema;
		/** The action it is sent to; the page's own where there is none. */
		action?: string;
		/** Which form of the page this is, and what its action answered, for whichever it was. */
		name: string;
		answer?: Slips | null | undefined;
		/** Whether what was filled in stays when it was done. */
		keeps?: boolean;
		/** Sends what is filled in, where that is not done by an action; gives what is wrong with fields, by their names. */
		send?: (filled: Record<string, unknown>) => Promise<Record<string, string>>;
		busy?: boolean;
		class?: string;
		children: Snippet;
	} = $props();

	/** The first of what is said about a field, also where it is said of a thing in a list. */
	const firstOf = (said: unknown): string =>
		typeof said === 'string' ? said : said && typeof said === 'object' ? firstOf(Object.values(said)[0]) : '';
	// the schema of a form does not change while it is shown
	// svelte-ignore state_referenced_locally
	const byPath = validateSchema(schema, { strict: false });
	/** What is wrong with what is filled in, by the name of the field. */
	async function wrongIn(filled: Record<string, unknown>): Promise<Record<string, string>> {
		return Object.fromEntries(
			Object.entries((await byPath(filled)) ?? {}).map(([field, said]) => [field, firstOf(said)])
		);
	}
	const { form, errors } = createForm<Record<string, string>>({
		validate: wrongIn,
		// it is sent by enhance, which asks first
		onSubmit: () => undefined
	});
	/** What kept the form from being sent, until something in it is changed. */
	let refused = $state.raw<Record<string, string>>({});
	/** What the action says of things that have no field here. */
	let unplaced = $state.raw<string[]>([]);
	const answered = $derived(answer?.form === name ? answer : null);
	setTheForm({
		slipOf: (field) => firstOf($errors[field]) || (refused[field] ?? answered?.slips[field] ?? ''),
		valueOf: (field) => answered?.values[field]
	});
</script>

<form
	method="POST"
	{action}
	class={look}
	use:form
	oninput={() => {
		refused = {};
		unplaced = [];
	}}
	use:enhance={async ({ formData, formElement, cancel }) => {
		refused = await wrongIn(Object.fromEntries(formData));
		if (Object.keys(refused).length) {
			await tick();
			const wrong = formElement.querySelector<HTMLElement>('[aria-invalid=true]');
			// what has no field here is refused by the action, and said above
			if (wrong) {
				cancel();
				wrong.focus();
				return;
			}
		}
		busy = true;
		if (send) {
			cancel();
			refused = await send(Object.fromEntries(formData));
			busy = false;
			return;
		}
		return async ({ result, update }) => {
			await update({ reset: !keeps });
			busy = false;
			const slips = result.type === 'failure' ? ((result.data as Partial<Slips> | undefined)?.slips ?? {}) : {};
			unplaced = Object.entries(slips).flatMap(([field, said]) =>
				said && !formElement.elements.namedItem(field) ? [said] : []
			);
		};
	}}
>
	{#each unplaced as said (said)}<p class="notice broken" role="alert">{said}</p>{/each}
	{@render children()}
</form>
