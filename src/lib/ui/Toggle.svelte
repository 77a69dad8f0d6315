<script lang="ts">
	import { Switch } from '@skeletonlabs/skeleton-svelte';

	/** Something that is on or off, at once. */
	let {
		on = $bindable(),
		label,
		disabled = false,
		change
	}: { on: boolean; label: string; disabled?: boolean; change?: (on: boolean) => void } = $props();
</script>

<Switch
	checked={on}
	{disabled}
	class="toggle"
	onCheckedChange={(details) => {
		on = details.checked;
		change?.(on);
	}}
>
	<Switch.Control class="toggle-control"><Switch.Thumb class="toggle-thumb" /></Switch.Control>
	<Switch.Label>{label}</Switch.Label>
	<Switch.HiddenInput />
</Switch>
