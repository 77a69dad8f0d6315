<script lang="ts">
	import { untrack } from 'svelte';

	/** A bank that may be changed, of any course, and a category of it: chosen by two lists. */
	let {
		bankId = $bindable(),
		categoryId = $bindable(),
		courseId,
		except = null
	}: {
		bankId: number | null;
		categoryId: number | null;
		/** The course that is open, whose banks come first. */
		courseId: number;
		/** A bank that is none of the choices. */
		except?: number | null;
	} = $props();

	interface Place {
		courseId: number;
		course: string;
		banks: { id: number; name: string }[];
	}
	let places = $state<Place[]>([]);
	let categories = $state<{ id: number; name: string; depth: number }[]>([]);
	$effect(() => {
		void untrack(async () => {
			const answer = await fetch(`/courses/${courseId}/banks/places`);
			if (answer.ok) places = (await answer.json()) as Place[];
		});
	});
	$effect(() => {
		const bank = bankId;
		if (bank === null) {
			categories = [];
			return;
		}
		void (async () => {
			const answer = await fetch(`/courses/${courseId}/banks/places?bank=${bank}`);
			if (answer.ok && bank === bankId) categories = (await answer.json()) as typeof categories;
		})();
	});
</script>

<label class="flex flex-col gap-1"
	>Bank
	<select
		class="select"
		value={bankId ?? ''}
		onchange={(event) => {
			bankId = Number(event.currentTarget.value) || null;
			categoryId = null;
		}}
	>
		<option value="">choose a bank</option>
		{#each places as place (place.courseId)}
			<optgroup label={place.course}>
				{#each place.banks.filter(({ id }) => id !== except) as bank (bank.id)}<option value={bank.id}
						>{bank.name}</option
					>{/each}
			</optgroup>
		{/each}
	</select></label
>
<label class="flex flex-col gap-1"
	>Category
	<select
		class="select"
		value={categoryId ?? ''}
		disabled={bankId === null}
		onchange={(event) => (categoryId = Number(event.currentTarget.value) || null)}
	>
		<option value="">the bank itself</option>
		{#each categories as category (category.id)}<option value={category.id}
				>{' '.repeat(category.depth * 3)}{category.name}</option
			>{/each}
	</select></label
>
