<script lang="ts" generics="Value extends string">
	import { SegmentedControl } from '@skeletonlabs/skeleton-svelte';

	/** A choice of one of a few, side by side. */
	let {
		value = $bindable(),
		choices,
		label,
		change
	}: {
		value: Value;
		choices: readonly { value: Value; name: string }[];
		label: string;
		/** Is told what was chosen, where the value is not bound. */
		change?: (value: Value) => void;
	} = $props();
</script>

<SegmentedControl
	{value}
	onValueChange={(details) => {
		const chosen = choices.find((choice) => choice.value === details.value);
		if (!chosen) return;
		if (change) change(chosen.value);
		else value = chosen.value;
	}}
>
	<SegmentedControl.Label class="visually-hidden">{label}</SegmentedControl.Label>
	<SegmentedControl.Control class="segments">
		{#each choices as choice (choice.value)}
			<SegmentedControl.Item value={choice.value} class="segment">
				<SegmentedControl.ItemText>{choice.name}</SegmentedControl.ItemText>
				<SegmentedControl.ItemHiddenInput />
			</SegmentedControl.Item>
		{/each}
	</SegmentedControl.Control>
</SegmentedControl>
