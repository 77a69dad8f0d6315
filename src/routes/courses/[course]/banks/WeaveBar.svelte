<script lang="ts">
	import type { Across } from '$lib/server/banks/weave';
	import Download from '@lucide/svelte/icons/download';
	import type { BankView } from './bank.svelte';
	import { shades, type Shade } from './weave';

	/** What a weave shows: what goes across, what its shade tells, which bank lies beside it; and it as a picture. */
	let {
		view,
		by,
		shade = $bindable(),
		bankId,
		otherId,
		banks,
		picture
	}: {
		view: BankView;
		by: Across;
		shade: Shade;
		bankId: number;
		/** The bank that lies beside it. */
		otherId: number | null;
		banks: { id: number; name: string }[];
		picture: () => void;
	} = $props();

	const across = [
		['kind', 'kinds across'],
		['tag', 'tags across'],
		['difficulty', 'difficulty across'],
		['points', 'points across'],
		['lack', 'what is lacking across']
	] as const;
</script>

<div class="flex flex-wrap gap-2 px-[18px] pt-1 pb-2">
	<select
		class="select"
		aria-label="Across"
		value={by}
		onchange={(event) => view.show({ across: event.currentTarget.value })}
		>{#each across as [value, words] (value)}<option {value}>{words}</option>{/each}</select
	>
	{#if by !== 'lack'}<select class="select" aria-label="Shade" bind:value={shade}
			>{#each shades as [value, words] (value)}<option {value}>shade: {words}</option>{/each}</select
		>{/if}
	<select
		class="select"
		aria-label="Beside"
		value={otherId === null ? '' : String(otherId)}
		onchange={(event) => view.show({ beside: event.currentTarget.value || null })}
		><option value="">beside: no other bank</option
		>{#each banks.filter(({ id }) => id !== bankId) as bank (bank.id)}<option value={String(bank.id)}
				>beside: {bank.name}</option
			>{/each}</select
	>
	<button type="button" class="btn btn-sm preset-outlined-brand ml-auto" onclick={picture}
		><Download size={13} /> As a picture</button
	>
</div>
