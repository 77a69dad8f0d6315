<script lang="ts">
	import NumberField from '../../NumberField.svelte';
	import { percent } from './credit';

	/** A share of the points, written in percent. */
	let { credit = $bindable(), label }: { credit: number; label: string } = $props();
</script>

<NumberField
	live
	required
	width="74px"
	least={-100}
	most={100}
	{label}
	bind:value={() => percent(credit), (share) => (credit = (share ?? 0) / 100)}
/>
