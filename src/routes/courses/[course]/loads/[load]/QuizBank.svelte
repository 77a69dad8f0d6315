<script lang="ts">
	import { count } from '$lib/ui/words';
	import type { Review } from './review.svelte';

	/** Where questions go that stand only in a quiz: with the others, or into a bank of their own. */
	let {
		review,
		banks,
		quizzes,
		mayChange
	}: {
		review: Review;
		banks: { id: number; name: string }[];
		quizzes: { title: string }[];
		mayChange: boolean;
	} = $props();

	const chosen = $derived(
		review.decision.quizBank === null ? 'others' : (review.decision.quizBank.bankId?.toString() ?? 'new')
	);
	function choose(value: string) {
		review.decision.quizBank =
			value === 'others'
				? null
				: { bankId: value === 'new' ? null : Number(value), bankName: quizzes[0]?.title.slice(0, 190) ?? '' };
	}
</script>

{#if review.summary.quizOnly}
	<label class="mt-1 block text-[13px]"
		>{count(review.summary.quizOnly, 'question stands', 'questions stand')} only in a quiz, and {review.summary
			.quizOnly === 1
			? 'goes'
			: 'go'}
		<select
			class="select w-full"
			disabled={!mayChange}
			aria-label="Bank for the questions that stand only in a quiz"
			value={chosen}
			onchange={(event) => choose(event.currentTarget.value)}
			><option value="others">where the others go</option>{#each banks as bank (bank.id)}<option value={String(bank.id)}
					>into {bank.name}</option
				>{/each}<option value="new">into a new bank</option></select
		></label
	>
	{#if review.decision.quizBank?.bankId === null}<input
			class="input mt-1 w-full"
			aria-label="Name of the new bank for the questions of quizzes"
			placeholder="name of the bank"
			maxlength="190"
			bind:value={review.decision.quizBank.bankName}
		/>{/if}
{/if}
