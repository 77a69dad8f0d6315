<script lang="ts">
	import { kindName } from '$core/kinds';
	import { outcomeByItself } from '$core/take-in/plan';
	import type { Match } from '$core/take-in/planned-question';
	import { pathOfKey } from '$core/take-in/paths';
	import type { ListedQuestion } from '$lib/server/loads/listed';
	import Mark from '$lib/ui/Mark.svelte';
	import Rows from '$lib/ui/Rows.svelte';
	import SearchField from '$lib/ui/SearchField.svelte';
	import { ruleShort, ruleTitle } from '$lib/ui/rule';
	import { pathText } from '$lib/ui/words';
	import type { Listing, ListOrder } from './listing.svelte';
	import type { Asked, Review } from './review.svelte';
	import Selected from './Selected.svelte';

	/** The questions of a load as a list: filtered, ordered, selected, and what is done with those that are. */
	let {
		review,
		listing,
		chosen,
		choose,
		act,
		pointsOf,
		mayChange,
		nothing
	}: {
		review: Review;
		listing: Listing;
		chosen: number | null;
		choose: (question: { id: number }) => void;
		act: (what: Asked, said?: string) => Promise<boolean>;
		/** What a question is worth once it is taken in. */
		pointsOf: (question: ListedQuestion) => number | null;
		mayChange: boolean;
		/** What is said where the load has no questions. */
		nothing: string;
	} = $props();

	/** Letters of a title that are drawn: more than fit, and few enough that ten thousand lines scroll without a stutter. */
	const mostShown = 90;

	const matchWords: Record<Match, string> = {
		new: 'new',
		same: 'the same',
		changed: 'changed',
		near: 'nearly the same'
	};
	const { kinds, matches, rules } = $derived(review.summary);
	const kindsHere = $derived([...kinds].sort((a, b) => (kindName(a.kind) < kindName(b.kind) ? -1 : 1)));
	const matchesHere = $derived(
		(['same', 'changed', 'near', 'new'] as const).flatMap(
			(match) => matches.find((found) => found.match === match) ?? []
		)
	);
	const { filter } = $derived(listing);
	// a filter whose last question is gone shows everything again, not an empty list
	$effect(() => {
		if (filter.rule && filter.rule !== 'any' && !rules.some(({ rule }) => rule === filter.rule))
			void listing.show({ rule: '' });
		if (filter.kind && !kinds.some(({ kind }) => kind === filter.kind)) void listing.show({ kind: '' });
		if (filter.match && !matches.some(({ match }) => match === filter.match)) void listing.show({ match: '' });
	});
	const orders: [ListOrder, string][] = [
		['file', 'file order'],
		['category', 'by category'],
		['kind', 'by kind'],
		['snag', 'by snag']
	];
</script>

{#if review.summary.found}
	<div class="filters">
		<SearchField
			words={filter.words}
			label="Find a question"
			placeholder="find"
			look={(words) => listing.show({ words })}
		/>
		<select
			class="select"
			aria-label="Snag"
			value={filter.rule}
			onchange={(event) => listing.show({ rule: event.currentTarget.value })}
			><option value="">any snags</option><option value="any">with snags</option
			>{#each rules as { rule, questions } (rule)}<option value={rule}
					>{ruleTitle(rule)} ({questions.toLocaleString('en')})</option
				>{/each}</select
		>
		{#if kindsHere.length > 1}<select
				class="select"
				aria-label="Kind"
				value={filter.kind}
				onchange={(event) => listing.show({ kind: event.currentTarget.value })}
				><option value="">any kind</option>{#each kindsHere as { kind } (kind)}<option value={kind}
						>{kindName(kind)}</option
					>{/each}</select
			>{/if}
		{#if matchesHere.length > 1}<select
				class="select"
				aria-label="Against the course"
				value={filter.match}
				onchange={(event) => listing.show({ match: event.currentTarget.value as Match | '' })}
				><option value="">new or not</option>{#each matchesHere as { match, questions } (match)}<option value={match}
						>{matchWords[match]} ({questions.toLocaleString('en')})</option
					>{/each}</select
			>{/if}
		<select
			class="select"
			aria-label="Order"
			value={listing.order}
			onchange={(event) => listing.show({ order: event.currentTarget.value as ListOrder })}
			>{#each orders as [order, words] (order)}<option value={order}>{words}</option>{/each}</select
		>
	</div>
{/if}
{#if listing.selection.selected && mayChange}<Selected {review} {listing} {act} />{/if}
{#if listing.pages.total}
	<Rows
		source={listing.pages}
		{chosen}
		{choose}
		label="Questions of the load"
		columns="16px 30px minmax(0, 1fr) 100px 26px 118px"
		narrow="16px 26px minmax(0, 1fr) 100px"
	>
		{#snippet head()}<span role="columnheader"
				><input
					type="checkbox"
					class="checkbox"
					aria-label="Select all that are listed"
					disabled={!mayChange}
					checked={listing.selection.allSelected}
					onchange={(event) => listing.selection.selectAll(event.currentTarget.checked)}
				/></span
			><span class="text-right" role="columnheader">No.</span><span role="columnheader">Question</span><span
				class="roomy"
				role="columnheader">Kind</span
			><span class="roomy text-right" role="columnheader">Pts</span><span role="columnheader">Snags</span>{/snippet}
		{#snippet line(question: ListedQuestion)}
			{@const [mark] = question.marks}
			{@const out = outcomeByItself(question, review.decision)}
			{@const points = pointsOf(question)}
			<span role="cell" class="flex items-center"
				><input
					type="checkbox"
					class="checkbox"
					aria-label="Select question {question.number}"
					disabled={!mayChange}
					checked={listing.selection.isSelected(question.id)}
					onclick={(event) => event.stopPropagation()}
					onchange={(event) => listing.selection.select(question, event.currentTarget.checked)}
				/></span
			>
			<span class="mute text-right" role="cell">{question.number}</span>
			<span
				class="flex min-w-0 items-baseline gap-2"
				role="cell"
				title="{question.title}{question.category === question.foundIn
					? ''
					: `, put in ${pathText(pathOfKey(question.category))}`}"
			>
				<span class="cut" class:mute={out !== 'taken' && out !== 'replaced'} class:line-through={out === 'left'}
					>{question.title.slice(0, mostShown) || '(no title)'}</span
				>
				{#if question.verified}<span class="whole" title="key verified">✓</span>{/if}
				{#if question.match !== 'new'}<span
						class="mute ml-auto whitespace-nowrap text-[12px]"
						title="{matchWords[question.match]} as in the course, {question.likeness} percent alike"
						>{question.match === 'same'
							? 'in course'
							: `${question.match === 'near' ? 'like' : 'older'} ${question.likeness} %`}</span
					>{/if}
			</span>
			<span class="roomy mute cut" role="cell">{kindName(question.kind)}</span>
			<span
				class="roomy text-right"
				role="cell"
				title={points === question.points
					? undefined
					: `${question.points ?? 'none'} in the file, ${points} by the rule`}
				class:font-bold={points !== question.points}>{points ?? '–'}</span
			>
			<span class="cut" role="cell"
				>{#if mark}<Mark
						severity={mark.severity}
						word={ruleShort(mark.rule) + (question.marks.length > 1 ? ` +${question.marks.length - 1}` : '')}
					/>{/if}</span
			>
		{/snippet}
	</Rows>
{:else}<p class="mute p-5">{review.summary.found ? 'No question fits what you asked for.' : nothing}</p>{/if}

<style>
	.filters select {
		flex: 0 1 132px;
		min-width: 0;
	}
</style>
