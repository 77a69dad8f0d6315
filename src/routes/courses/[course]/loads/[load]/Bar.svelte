<script lang="ts">
	import { count } from '$lib/ui/words';
	import type { ActionData, PageData } from './$types';
	import type { Review } from './review.svelte';
	import { enhance } from '$lib/ui/refresh';

	/** The bar at the foot: what taking in will do in a sentence, into which bank, and the button. */
	let {
		data,
		form,
		review,
		target,
		done,
		panel = $bindable()
	}: {
		data: PageData;
		form: ActionData;
		review: Review;
		/** Where it goes, as course and bank. */
		target: string;
		/** What has just been done. */
		done: string;
		/** The panel that is open above the bar. */
		panel: '' | 'rules' | 'changes';
	} = $props();

	let pressed = $state(false);
	const plan = $derived(review.plan);
	const goesIn = $derived(plan.taken + plan.replaced);
	const likely = $derived(review.summary.likely);
	const why = $derived(
		likely && review.decision.bankId === likely.bankId
			? `${likely.there.toLocaleString('en')} of its ${likely.of.toLocaleString('en')} ${likely.why} are there already`
			: ''
	);
	const effects = $derived(
		plan.effects
			.map((effect) => `${effect.what}: ${effect.questions ? count(effect.questions, 'question') : 'none'}`)
			.join('; ')
	);
	const quizBankName = $derived(
		review.decision.quizBank?.bankId == null
			? review.decision.quizBank?.bankName.trim() || 'a new bank'
			: data.banks.find((bank) => bank.id === review.decision.quizBank?.bankId)?.name
	);
	const rest = $derived(
		[
			[plan.replaced, 'in the place of an older one'],
			[plan.skipped, 'skipped as already there'],
			[plan.aside, 'set aside'],
			[plan.left, 'left out']
		]
			.filter(([number]) => number)
			.map(([number, what]) => `${number!.toLocaleString('en')} ${what}`)
			.join(', ')
	);
	const names = $derived([...new Set([data.found.package_title, data.name].filter(Boolean))]);
	/** How many of some categories are new, in the words of the sentence. */
	function ofThemNew(all: number, fresh: number): string {
		if (fresh === all) return all === 1 ? 'a new one' : 'all new';
		if (fresh === 0) return all === 1 ? 'there already' : 'all there already';
		return `${fresh} of them new`;
	}
	const toggle = (which: 'rules' | 'changes') => (panel = panel === which ? '' : which);
</script>

<form
	class="bar"
	method="POST"
	action="?/take"
	use:enhance={() => {
		pressed = true;
		review.hold();
		return async ({ result, update }) => {
			// where the server cannot answer, the page stays with everything that was decided on it
			if (result.type === 'error')
				review.failure = String((result.error as { message?: string } | null)?.message ?? result.error);
			else await update({ reset: false });
			pressed = false;
			review.busy = false;
		};
	}}
>
	<input type="hidden" name="decision" value={JSON.stringify(review.decision)} />
	<div class="sentence" class:faint={review.counting && !review.failure} role="status" aria-busy={review.counting}>
		{#if data.found.state === 'failed'}<b>Nothing can be taken in from this file.</b>
			Throw the load away, or hand in another file under Loads.
		{:else if review.gone}<b
				>{review.gone === 'taken' ? 'Somebody has taken this load in.' : 'Somebody is reading this load anew.'}
				<a class="word" href="/courses/{data.course.id}/loads">See what became of it</a></b
			>
		{:else if form?.refused}<b class="broken">{form.refused}</b>
		{:else if review.failure}<b class="broken">{review.failure}</b>
		{:else if plan.refusal}<b class="broken">{plan.refusal}</b>
		{:else}
			<b
				>Take in {goesIn.toLocaleString('en')} of {count(plan.found, 'question')}
				{goesIn ? `into ${target}:` : `into ${data.course.name}, for they are there already.`}</b
			>
			{#if goesIn}{plan.categories.length
					? `${count(plan.categories.length, 'category', 'categories')}, ${ofThemNew(plan.categories.length, plan.newCategories.length)}`
					: 'no category'}{plan.quizBank
					? `, and ${plan.quizBank.taken.toLocaleString('en')} of them into ${quizBankName}`
					: ''}.{/if}
			<span class="mute">{rest}{rest ? '.' : ''}</span>
			{#if data.quizzes.length}<span>{count(data.quizzes.length, 'quiz', 'quizzes')} with it.</span>{/if}
			{#if why}<span class="mute">Into this bank, for {why}.</span>{/if}
			{#if effects}<span class="doubtful">By rule: {effects}.</span>{/if}
			<span class="mute">{done || review.news}</span>
		{/if}
	</div>
	{#if data.found.state === 'failed'}<a class="btn preset-outlined-brand" href="/courses/{data.course.id}/loads"
			>Loads</a
		>
	{:else if data.mayChange}
		<select class="select" aria-label="Bank" bind:value={review.decision.bankId}>
			{#each data.banks as bank (bank.id)}<option value={bank.id}>into {bank.name}</option>{/each}
			<option value={null}>into a new bank</option>
		</select>
		{#if review.decision.bankId === null}<input
				class="input w-40"
				aria-label="Name of the new bank"
				placeholder="name of the bank"
				maxlength="190"
				list="names"
				bind:value={review.decision.bankName}
			/><datalist id="names"
				>{#each names as name (name)}<option value={name}></option>{/each}</datalist
			>{/if}
		<button
			class="btn preset-outlined-brand"
			type="button"
			aria-expanded={panel === 'rules'}
			onclick={() => toggle('rules')}>Rules</button
		>
		<button
			class="btn preset-outlined-brand"
			type="button"
			aria-expanded={panel === 'changes'}
			onclick={() => toggle('changes')}>What will change</button
		>
		<button
			class="btn preset-filled-brand"
			disabled={plan.refusal !== null || pressed || review.counting || review.gone !== ''}
			>{pressed
				? 'Taking in…'
				: review.counting && !review.failure
					? 'Counting…'
					: goesIn || !data.quizzes.length
						? `Take in ${goesIn.toLocaleString('en')}`
						: `Take in ${count(data.quizzes.length, 'quiz', 'quizzes')}`}</button
		>
	{:else}<span class="mute">You may look at this course, and not change it.</span>{/if}
</form>

<style>
	.sentence {
		flex: 1 1 300px;
	}
</style>
