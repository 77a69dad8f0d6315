<script lang="ts">
	import type { PlaceFinding } from '$lib/server/checks/places';
	import Columns from '$lib/ui/Columns.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import { ruleTitle, ruleWhy } from '$lib/ui/rule';
	import { figure } from '$lib/ui/words';
	import type { Snippet } from 'svelte';
	import { enhance } from '$lib/ui/refresh';

	/** What a check over trees or quizzes finds: the places that it speaks of, and the one that is chosen. */
	let {
		findings,
		courseId,
		first,
		mends
	}: {
		findings: PlaceFinding[];
		courseId: number;
		first: Snippet;
		/** Whether it can be mended at a click. */
		mends: boolean;
	} = $props();

	/** What a mend does. */
	const mendWords = new Map([
		['category-empty', 'Takes the category out, with the empty ones under it.'],
		['category-order', 'Writes the numbers in the names with as many figures each, as in 02 and 10.']
	]);
	let at = $state(0);
	const chosen = $derived(findings[Math.min(at, findings.length - 1)]!);
	const within = ({ place }: PlaceFinding) => ('quizId' in place ? 'Quiz' : place.bank);
	const name = ({ place }: PlaceFinding) =>
		'quizId' in place ? place.quiz : place.category.length ? place.category.join(' › ') : 'the bank itself';
	const address = ({ place }: PlaceFinding) =>
		'quizId' in place
			? `/courses/${courseId}/quizzes/${place.quizId}`
			: `/courses/${courseId}/banks?bank=${place.bankId}${place.categoryId === null ? '' : `&category=${place.categoryId}`}`;
</script>

<Columns
	name="snags"
	widths={[264, 432]}
	{first}
	firstLabel="Checks"
	middleLabel="Places of the check"
	lastLabel="The snag"
>
	{#snippet middle()}
		<div class="filters">
			<h2 class="mr-auto">
				{ruleTitle(chosen.rule)} <span class="mute font-normal">{figure(findings.length)}</span>
			</h2>
			{#if mends}<form method="POST" action="?/mendPlaces" use:enhance>
					<input type="hidden" name="check" value={chosen.rule} /><button class="btn btn-sm preset-outlined-brand"
						>Mend all {figure(findings.length)}</button
					>
				</form>{/if}
		</div>
		<ul>
			{#each findings as finding, place (place)}<li>
					<button
						type="button"
						class:chosen={finding === chosen}
						data-opens
						aria-pressed={finding === chosen}
						onclick={() => (at = place)}
					>
						<span class="mute block text-[12.5px]">{within(finding)}</span>
						<b class="cut block">{name(finding)}</b>
						<span class="mute cut block text-[13px]">{finding.message}</span>
					</button>
				</li>{/each}
		</ul>
	{/snippet}
	{#snippet last()}
		<h2><Mark severity={chosen.severity} word={ruleTitle(chosen.rule)} /></h2>
		<p class="mute mt-2 text-[13px]">{within(chosen)}</p>
		<p class="font-bold">{name(chosen)}</p>
		<p class="mt-2">{chosen.message}</p>
		<p class="mute mt-1 text-[13px]">{ruleWhy(chosen.rule)}</p>
		{#if chosen.words.length}
			<h3 class="mt-4">What is meant</h3>
			<ul class="mt-1">
				{#each chosen.words as word (word)}<li class="word-line">{word}</li>{/each}
			</ul>
		{/if}
		{#if mends && 'bankId' in chosen.place}<form method="POST" action="?/mendPlaces" use:enhance class="mt-4">
				<input type="hidden" name="check" value={chosen.rule} /><input
					type="hidden"
					name="bank"
					value={chosen.place.bankId}
				/><input type="hidden" name="category" value={chosen.place.categoryId ?? ''} />
				<p class="mute mb-2 text-[13px]">{mendWords.get(chosen.rule)}</p>
				<button class="btn btn-sm preset-filled-brand" data-mend-this>Mend this <kbd>m</kbd></button>
			</form>{/if}
		<p class="mt-4">
			<a class="btn btn-sm preset-outlined-brand" href={address(chosen)}
				>{'quizId' in chosen.place ? 'Open the quiz' : 'Open it in its bank'}</a
			>
		</p>
	{/snippet}
</Columns>

<style>
	li button {
		display: block;
		width: 100%;
		padding: 8px 18px;
		border-bottom: 1px solid var(--line);
		text-align: left;
		cursor: pointer;
	}
	li button:hover:not(.chosen) {
		background: color-mix(in srgb, var(--woad-soft) 45%, transparent);
	}
	.word-line {
		padding: 3px 0;
		border-bottom: 1px solid var(--line);
	}
</style>
