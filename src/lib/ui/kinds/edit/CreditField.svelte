<script lang="ts">
	import { percent, share } from './credit';

	/** A share of the points, written in percent. */
	let { credit = $bindable(), label }: { credit: number; label: string } = $props();
</script>

<input
	class="input"
	type="number"
	min="-100"
	max="100"
	step="any"
	aria-label={label}
	value={percent(credit)}
	onchange={(event) => (credit = share(event.currentTarget.value))}
/>

<style>
	input {
		width: 74px;
		flex: none;
	}
</style>
