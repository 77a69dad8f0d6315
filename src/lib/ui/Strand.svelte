<script lang="ts">
	/** Progress drawn as a strand of yarn: so much of it is spun. Without a value it says only that work goes on. */
	let { value, label }: { value: number | null; label: string } = $props();
	const share = $derived(value === null ? 0.5 : Math.max(0, Math.min(1, value)));
</script>

<svg
	class="strand"
	viewBox="0 0 150 10"
	role="progressbar"
	aria-label={label}
	aria-valuemin="0"
	aria-valuemax="100"
	aria-valuenow={value === null ? undefined : Math.round(share * 100)}
>
	<path d="M2 5C24 1 34 9 56 6S96 1 148 5" stroke="var(--line2)" stroke-width="1.5" fill="none" />
	<path
		d="M2 5C24 1 34 9 56 6S96 1 148 5"
		stroke="var(--woad)"
		stroke-width="4"
		fill="none"
		stroke-linecap="round"
		pathLength="100"
		stroke-dasharray="{Math.max(0.1, share * 100)} 200"
	/>
</svg>

<style>
	.strand {
		width: 120px;
		max-width: 100%;
		height: 10px;
		display: inline-block;
		vertical-align: middle;
	}
</style>
