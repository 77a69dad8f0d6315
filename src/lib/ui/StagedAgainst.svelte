<script lang="ts">
	import type { Question } from '$core/kinds';
	import type { MatchRule } from '$core/take-in/decision';
	import type { StagedQuestion } from '$lib/server/loads/review';
	import WordChanges from './WordChanges.svelte';

	/** What a question of a load is held against: the one of the course that it is like, in what they differ, and what is to become of it. */
	let {
		question,
		against,
		courseId,
		mayChange,
		busy,
		matchRule,
		spoken,
		match
	}: {
		question: Question;
		against: NonNullable<StagedQuestion['against']>;
		courseId: number;
		mayChange: boolean;
		busy: boolean;
		/** The rule for this question alone, and the general one in words. */
		matchRule: MatchRule | null;
		spoken: string;
		match?: ((rule: MatchRule | null) => void) | undefined;
	} = $props();

	const likenesses = {
		same: 'The same question is in the course.',
		changed: 'A question of its name or identifier is in the course, with other content',
		near: 'A question that is nearly the same is in the course',
		new: ''
	};
</script>

<p>
	{likenesses[against.match]}{against.match === 'same' ? '' : ` (${against.likeness} percent alike)`}
	<a class="word" href="/courses/{courseId}/banks?bank={against.bankId}&question={against.id}">Look at it</a>
</p>
{#if match && mayChange}
	<label class="mt-2 block"
		>With this one
		<select
			class="select"
			value={matchRule ?? ''}
			disabled={busy}
			onchange={(event) => match((event.currentTarget.value || null) as MatchRule | null)}
			><option value="">as the rule says{spoken ? `: ${spoken}` : ''}</option><option value="skip">skip</option><option
				value="beside">take in beside it</option
			><option value="replace">put in its place</option></select
		></label
	>
{/if}
{#if against.match !== 'same'}
	<p class="mute mt-3 text-[13px]">
		<del>struck out</del> is only in the course, <b>marked</b> only in this load
	</p>
	<WordChanges before={against.question} after={question} />
{/if}
