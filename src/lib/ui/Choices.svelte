<script lang="ts">
	import { Menu } from '@skeletonlabs/skeleton-svelte';
	import ChevronDown from '@lucide/svelte/icons/chevron-down';

	/** A button that opens a list of things to do. */
	let {
		name,
		label = name,
		choices,
		choose
	}: {
		name: string;
		/** What it is called for those who do not see it. */
		label?: string;
		choices: readonly { value: string; name: string; off?: boolean }[];
		choose: (value: string) => void;
	} = $props();
</script>

<Menu onSelect={({ value }) => choose(value)} positioning={{ placement: 'bottom-start' }}>
	<Menu.Trigger class="btn btn-sm preset-outlined-brand" aria-label={label}
		>{name} <ChevronDown size={12} aria-hidden="true" /></Menu.Trigger
	>
	<Menu.Positioner class="over">
		<Menu.Content class="panel min-w-[200px]">
			{#each choices as choice (choice.value)}<Menu.Item
					value={choice.value}
					disabled={choice.off ?? false}
					class="choice-line">{choice.name}</Menu.Item
				>{/each}
		</Menu.Content>
	</Menu.Positioner>
</Menu>
