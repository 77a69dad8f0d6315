<script lang="ts">
	/** A course without a bank: where banks come from. */
	let { courseId, mayChange, make }: { courseId: number; mayChange: boolean; make: () => void } = $props();
</script>

<div class="sheet">
	<h1>Banks</h1>
	<p class="mute mt-2 mb-4">
		This course has no bank yet. A bank comes to be when a load is taken in: <a
			class="word"
			href="/courses/{courseId}/loads">drop a package on Loads</a
		>. Or make one by hand.
	</p>
	{#if mayChange}<button type="button" class="btn btn-sm preset-filled-brand" onclick={make}>Make a bank</button>{/if}
</div>
