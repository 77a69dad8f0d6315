<script lang="ts" generics="Value extends string">
	import { Tabs } from '@skeletonlabs/skeleton-svelte';
	import type { Snippet } from 'svelte';

	/** Tabs over one panel: only what is chosen is there. What stands `beside` them is no tab. */
	let {
		tabs,
		value = $bindable(),
		label,
		panel,
		beside
	}: {
		tabs: { value: Value; name: string }[];
		value: Value;
		label: string;
		panel: Snippet<[Value]>;
		beside?: Snippet;
	} = $props();
</script>

<Tabs {value} onValueChange={(details) => (value = details.value as Value)}>
	<Tabs.List class="tabs" aria-label={label}>
		{#each tabs as tab (tab.value)}<Tabs.Trigger value={tab.value}>{tab.name}</Tabs.Trigger>{/each}
		{#if beside}<span class="mute ml-auto self-center text-[13px] whitespace-nowrap">{@render beside()}</span>{/if}
	</Tabs.List>
	{#each tabs as tab (tab.value)}
		<Tabs.Content value={tab.value}
			>{#if tab.value === value}{@render panel(tab.value)}{/if}</Tabs.Content
		>
	{/each}
</Tabs>
