<script lang="ts">
	import type { StoredQuestion } from '$lib/server/banks/banks';
	import { isNoShortcut } from '$lib/ui/keys';
	import { dateTime } from '$lib/ui/words';
	import type { BankView } from './bank.svelte';
	import { setKeyState } from './key-state';

	/** What is known of the key of a question, and the two keys that say more: it is right, or it is doubted. */
	let {
		stored,
		view,
		mayChange,
		next
	}: { stored: StoredQuestion; view: BankView; mayChange: boolean; next: () => void } = $props();

	let doubting = $state(false);
	let note = $state('');
	const stale = $derived(
		stored.verified !== null && stored.verified.version !== null && stored.verified.version < stored.version
	);
	const set = (state: string, words = '') => setKeyState(view, stored, state, words);
	async function verify() {
		if (await set('verified')) next();
	}
	function keys(event: KeyboardEvent) {
		if (!mayChange || isNoShortcut(event)) return;
		if (event.key === 'v') void verify();
		else if (event.key === 'd') doubting = true;
		else return;
		event.preventDefault();
	}
	const atOnce = (node: HTMLElement) => node.focus();
</script>

<svelte:window onkeydown={keys} />
<section class="mt-5 border-t border-(--line) pt-3">
	<p class="mb-2 text-[13px]" class:doubtful={stored.disputed || stale}>
		{#if stored.disputed}<b>The key is doubted{stored.disputed.by ? ` by ${stored.disputed.by}` : ''}:</b>
			{stored.disputed.note || 'no reason was given'}
		{:else if stored.verified}<span class:whole={!stale}
				>{stale ? '' : '✓ '}Key verified by {stored.verified.by}, {dateTime(stored.verified.at)}</span
			>{#if stale}, and changed since{/if}
		{:else}<span class="mute">Not verified yet.{stored.machine ? ' A language model wrote it.' : ''}</span>{/if}
	</p>
	{#if mayChange}
		{#if doubting}
			<form
				class="flex flex-col gap-2"
				onsubmit={async (event) => {
					event.preventDefault();
					if (await set('disputed', note)) {
						doubting = false;
						note = '';
					}
				}}
			>
				<label class="flex flex-col gap-1 text-[13px]"
					>What is doubted <input class="input" maxlength="1000" bind:value={note} use:atOnce /></label
				>
				<div class="flex gap-2">
					<button class="btn btn-sm preset-filled-brand" disabled={view.busy}>Doubt it</button>
					<button type="button" class="btn btn-sm preset-outlined-brand" onclick={() => (doubting = false)}
						>Leave it</button
					>
				</div>
			</form>
		{:else}
			<div class="flex flex-wrap gap-2">
				<button type="button" class="btn btn-sm preset-filled-brand" disabled={view.busy} onclick={verify}
					>The key is right <kbd>v</kbd></button
				>
				<button
					type="button"
					class="btn btn-sm preset-outlined-brand"
					disabled={view.busy}
					onclick={() => (doubting = true)}>Doubt it <kbd>d</kbd></button
				>
				{#if stored.verified || stored.disputed}<button
						type="button"
						class="btn btn-sm preset-outlined-brand"
						disabled={view.busy}
						onclick={() => set('unverified')}>Not verified</button
					>{/if}
			</div>
		{/if}
	{/if}
</section>
