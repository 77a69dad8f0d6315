<script lang="ts">
	import type { ListedQuestion } from '$lib/server/loads/listed';
	import type { StagedQuestion } from '$lib/server/loads/review';
	import Mark from '$lib/ui/Mark.svelte';
	import Staged from '$lib/ui/Staged.svelte';
	import type { Asked, Review } from './review.svelte';

	/** The chosen question of a load, and what is decided for it alone. */
	let {
		shown,
		review,
		courseId,
		mayChange,
		act,
		handIn,
		pointsOf
	}: {
		shown: StagedQuestion;
		review: Review;
		courseId: number;
		mayChange: boolean;
		act: (what: Asked, said?: string) => Promise<boolean>;
		handIn: (name: string, file: File) => void;
		pointsOf: (question: ListedQuestion) => number | null;
	} = $props();

	const listed = $derived(shown.listed);
	const ids = $derived([shown.id]);
	const ruleWords = { skip: 'skip', beside: 'take in beside it', replace: 'put in its place' };
</script>

{#if listed.broken && mayChange}
	<p class="mb-2 flex items-center gap-2 text-[13px]">
		<Mark
			severity="broken"
			word={listed.choice === 'leave' ? 'left out' : listed.choice === 'aside' ? 'set aside' : 'will be set aside'}
		/>
		<button
			class="btn btn-sm preset-outlined-brand ml-auto"
			type="button"
			disabled={review.busy}
			aria-pressed={listed.choice === 'aside'}
			onclick={() => act({ do: 'choose', ids, choice: 'aside' })}>Set aside</button
		>
		<button
			class="btn btn-sm preset-outlined-brand"
			type="button"
			disabled={review.busy}
			aria-pressed={listed.choice === 'leave'}
			onclick={() => act({ do: 'choose', ids, choice: 'leave' })}>Leave out</button
		>
	</p>
{/if}
<Staged
	{shown}
	number={listed.number}
	{courseId}
	{mayChange}
	busy={review.busy}
	failure={review.failure}
	matchRule={listed.matchRule}
	ruleWords={listed.match === 'new' ? '' : ruleWords[review.decision[listed.match]]}
	mend={(rule, all) => act({ do: 'mend', rule, ...(all ? {} : { ids }) })}
	waive={(rule, reason, all) => act({ do: 'waive', rule, reason, ...(all ? {} : { ids }) })}
	unwaive={(rule) => act({ do: 'unwaive', id: shown.id, rule }, 'It is open again.')}
	edit={(question) => act({ do: 'edit', id: shown.id, version: shown.version, question }, 'Kept.')}
	match={(rule) => act({ do: 'match', ids, rule })}
	verify={(verified) => act({ do: 'verify', ids, verified })}
	{handIn}
	points={pointsOf(listed)}
	countOf={(rule) => review.summary.rules.find((found) => found.rule === rule)?.questions ?? 0}
	leaveOut={() => act({ do: 'choose', ids, choice: 'leave' }, 'Left out.')}
/>

<style>
	button[aria-pressed='true'] {
		background: var(--woad-soft);
	}
</style>
