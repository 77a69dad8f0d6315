<script lang="ts">
	import X from '@lucide/svelte/icons/x';
	/** The sheet of the keys, opened with a question mark. */
	let sheet: HTMLDialogElement;
	const keys: [string, string][] = [
		['?', 'this sheet'],
		['g then l, b, s, q, d', 'to Loads, Banks, Snags, Quizzes, Dispatch'],
		['/', 'to the search of the page'],
		['j or ↓', 'the next in a list'],
		['k or ↑', 'the one before'],
		['Home, End', 'the first, the last in a list'],
		['Esc', 'leave a field or close a sheet']
	];
	/** Opens the sheet. */
	export function open() {
		sheet.showModal();
	}
</script>

<dialog bind:this={sheet} aria-labelledby="keys-title">
	<div class="head">
		<h2 id="keys-title">Keys</h2>
		<button type="button" aria-label="Close" onclick={() => sheet.close()}><X size={18} /></button>
	</div>
	<table class="rows">
		<tbody>
			{#each keys as [key, does] (key)}<tr><td><kbd>{key}</kbd></td><td>{does}</td></tr>{/each}
		</tbody>
	</table>
</dialog>

<style>
	dialog {
		margin: 15vh auto auto;
		width: 460px;
		background: var(--paper);
		color: var(--ink);
		border: 1px solid var(--line2);
		border-radius: 8px;
		padding: 18px 22px 22px;
	}
	dialog::backdrop {
		background: rgb(0 0 0 / 0.35);
	}
	.head {
		display: flex;
		justify-content: space-between;
		margin-bottom: 8px;
	}
	button {
		cursor: pointer;
	}
</style>
