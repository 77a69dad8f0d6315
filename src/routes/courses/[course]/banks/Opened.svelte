<script lang="ts">
	import type { StoredQuestion } from '$lib/server/banks/banks';
	import type { PageData } from './$types';
	import type { BankView } from './bank.svelte';
	import NewQuestion from './NewQuestion.svelte';
	import QuestionPanel from './QuestionPanel.svelte';
	import SetKey from './SetKey.svelte';

	/** The question that is opened: to be seen and edited, to be given its key, or to be made new. */
	let {
		view,
		shown,
		place,
		standing,
		begins,
		mayChange,
		keying,
		making,
		next,
		leaveKeys,
		made
	}: {
		view: BankView;
		shown: StoredQuestion | null;
		/** Which of how many it is, in words. */
		place: string;
		/** The steps of where a new one will stand: the bank, and the category in it. */
		standing: string[];
		begins: PageData['begins'];
		mayChange: boolean;
		keying: boolean;
		making: boolean;
		next: () => Promise<void>;
		leaveKeys: () => void;
		made: (id: number | null) => void;
	} = $props();
</script>

{#if keying && shown}
	{#key shown.id}<SetKey stored={shown} {view} {place} {next} leave={leaveKeys} />{/key}
{:else if keying}
	<h2 class="mb-2">Every question here has a key</h2>
	<button type="button" class="btn btn-sm preset-outlined-brand" onclick={leaveKeys}>Back to all questions</button>
{:else if making}
	<NewQuestion {view} place={standing} {begins} done={made} />
{:else if shown}
	<QuestionPanel stored={shown} {view} {place} {mayChange} {next} />
{/if}
