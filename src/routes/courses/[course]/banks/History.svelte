<script lang="ts">
	import type { StoredQuestion } from '$lib/server/banks/banks';
	import WordChanges from '$lib/ui/WordChanges.svelte';
	import { dateTime } from '$lib/ui/words';
	import type { BankView } from './bank.svelte';

	/** What a question was before, version by version, with the words that changed; each can be had back. */
	let { stored, view, mayChange }: { stored: StoredQuestion; view: BankView; mayChange: boolean } = $props();

	/** Each version with what came after it, the newest first. */
	const steps = $derived(
		stored.history.map((old, at) => ({ old, after: stored.history[at - 1]?.question ?? stored.question }))
	);
</script>

<p class="mute mb-3 text-[13px]">
	Version {stored.version}, {stored.changed
		? `changed ${dateTime(stored.changed.at)}${stored.changed.by ? ` by ${stored.changed.by}` : ''}`
		: `as it came ${dateTime(stored.created)}`}.
</p>
{#each steps as { old, after } (old.version)}
	<section class="mb-5">
		<div class="mb-1 flex items-baseline justify-between gap-3">
			<h3>Version {old.version}, until {dateTime(old.replaced)}{old.by ? `, when ${old.by} changed it` : ''}</h3>
			{#if mayChange}<button
					type="button"
					class="btn btn-sm preset-outlined-brand"
					disabled={view.busy}
					aria-label="Have version {old.version} back"
					onclick={() => view.actAtOnce(`questions/${stored.id}`, { version: old.version })}>Have it back</button
				>{/if}
		</div>
		<WordChanges before={old.question} {after} />
	</section>
{:else}<p class="mute">Nothing was changed in it since it came.</p>{/each}
