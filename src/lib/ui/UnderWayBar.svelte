<script lang="ts">
	import Strand from './Strand.svelte';
	import { all, sheets } from './under-way.svelte';
	import { figure } from './words';

	/** What is being done and takes longer: how far it is, and Stop, which takes all of it back; at the foot of the window, or in the sheet that is open. */
	let { inSheet = false }: { inSheet?: boolean } = $props();
</script>

{#if all.length && (inSheet || !sheets.open)}
	<div class:under-way={!inSheet} role="status">
		{#each all as work (work)}
			<p>
				<Strand value={work.total ? work.done / work.total : null} label="Progress" />
				<span class="mute">
					{#if work.total}{figure(work.done)} of {figure(work.total)}{:else}at work{/if}
				</span>
				<button type="button" class="btn btn-sm preset-outlined-brand" onclick={work.stop}>Stop</button>
			</p>
		{/each}
	</div>
{/if}

<style>
	.under-way {
		position: fixed;
		left: 50%;
		bottom: 76px;
		translate: -50%;
		z-index: 60;
		padding: 10px 14px;
		background: var(--paper);
		border: 1px solid var(--line2);
		border-radius: 6px;
	}
	p {
		display: flex;
		align-items: center;
		gap: 12px;
	}
</style>
