<script lang="ts">
	import type { AcceptedText } from '$core/model/pieces';
	import CreditField from './CreditField.svelte';
	import List from './List.svelte';

	/** The texts that are accepted; `of` says for what, where a question has several answers. */
	let { accepted = $bindable(), of = '' }: { accepted: AcceptedText[]; of?: string } = $props();
</script>

<List
	bind:items={accepted}
	what="answer{of}"
	head={of ? '' : 'Accepted answers'}
	unit={of ? '' : 'credit in percent'}
	make={() => ({ text: '', credit: 1, caseSensitive: false })}
>
	{#snippet line(accepted: AcceptedText, at: number)}
		<input class="input min-w-0 flex-1" aria-label="Accepted answer {at + 1}{of}" bind:value={accepted.text} />
		<label class="whitespace-nowrap text-[13px]" title="An answer in other capitals is wrong"
			><input type="checkbox" bind:checked={accepted.caseSensitive} /> capitals</label
		>
		<CreditField bind:credit={accepted.credit} label="Credit of answer {at + 1}{of}" />
	{/snippet}
</List>
