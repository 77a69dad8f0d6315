<script lang="ts">
	import Copy from '@lucide/svelte/icons/copy';
	import { tell } from './toasts';

	/** A link that was made for somebody: it is shown this once. */
	let { made }: { made: { link: string; to: string; sent: boolean } } = $props();

	async function copy() {
		try {
			await navigator.clipboard.writeText(made.link);
			tell('The link is copied.');
		} catch {
			tell('This browser does not let it be copied. Choose the link and copy it by hand.');
		}
	}
</script>

<div class="notice whole mb-4" role="status">
	<p>
		{made.sent ? `The link was sent to ${made.to}.` : `Give this link to ${made.to}.`} It is good for once, and is shown only
		now.
	</p>
	<p class="mt-1 flex items-center gap-2">
		<input
			class="input mono flex-1"
			readonly
			value={made.link}
			aria-label="The link"
			onfocus={(event) => event.currentTarget.select()}
		/>
		<button type="button" class="btn btn-sm preset-outlined-brand" onclick={copy}><Copy size={13} /> Copy it</button>
	</p>
</div>
