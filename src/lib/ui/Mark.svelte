<script lang="ts">
	/** The mark of a severity, always with its word: a broken strand, a tangle, a frayed end, or a closed loop. */
	let { severity, word }: { severity: 'broken' | 'doubtful' | 'untidy' | 'whole'; word: string } = $props();
</script>

<span class="sign {severity}">
	<svg viewBox="0 0 12 12" aria-hidden="true" fill="none" stroke="currentColor" stroke-width="2" stroke-linecap="round">
		{#if severity === 'broken'}<path d="M1 3.5C4 3.5 4 8.5 5 8.5M7 3.5C8 3.5 8 8.5 11 8.5" />
		{:else if severity === 'doubtful'}<path d="M1 8.5C3 2 5 2 6 6S9 10 11 3.5" />
		{:else if severity === 'untidy'}<path stroke-width="1.6" d="M1 6H7L10 3M7 6L10 9" />
		{:else}<circle cx="6" cy="6" r="3.6" />{/if}
	</svg><span class="said">{word}</span>
</span>

<style>
	.sign {
		display: inline-flex;
		max-width: 100%;
		gap: 5px;
		align-items: center;
		font-size: 12.5px;
		white-space: nowrap;
	}
	.said {
		overflow: hidden;
		text-overflow: ellipsis;
	}
	svg {
		width: 11px;
		height: 11px;
		flex: none;
	}
</style>
