<script lang="ts">
	import type { FormsRow } from '$lib/server/quizzes/forms';
	import { send } from '$lib/ui/doing';
	import NumberField from '$lib/ui/NumberField.svelte';
	import Segments from '$lib/ui/Segments.svelte';
	import { tell } from '$lib/ui/toasts';
	import { count, dateTime } from '$lib/ui/words';
	import { onMount } from 'svelte';
	import FormMarks from './FormMarks.svelte';
	import type { Sheet } from './sheet.svelte';

	/** Forms of a quiz for paper: made, printed with their keys, and marked. */
	let { sheet, mayChange, courseId }: { sheet: Sheet; mayChange: boolean; courseId: number } = $props();

	let sets = $state.raw<FormsRow[] | null>(null);
	let many = $state<number | null>(4);
	let way = $state<'apart' | 'same'>('apart');
	let seed = $state('paper');
	let busy = $state(false);
	let failure = $state('');
	let marked = $state<number | null>(null);
	const address = $derived(`${sheet.address}/forms`);

	async function look() {
		const answer = await fetch(address, { headers: { Accept: 'application/json' } }).catch(() => null);
		sets = answer?.ok ? ((await answer.json()) as FormsRow[]) : [];
	}
	onMount(() => void look());
	async function make() {
		busy = true;
		await sheet.save();
		const sent = await send<{ id: number }>(address, { count: many, same: way === 'same', seed });
		busy = false;
		failure = sent.ok ? '' : sent.message;
		await look();
	}
	async function drop({ id }: FormsRow) {
		const sent = await send(address, { id }, 'DELETE');
		if (!sent.ok) tell(sent.message);
		if (marked === id) marked = null;
		await look();
	}
	const printed = (id: number, what: string) => `${sheet.address}/print?forms=${id}&what=${what}`;
	/** What questions two neighbouring forms share, the least and the most of any two. */
	const sharedText = ({ forms }: FormsRow) => {
		const all = forms.shared.flat();
		if (!all.length) return 'one form';
		if (forms.same) return 'all have the same questions';
		const [least, most] = [Math.min(...all), Math.max(...all)];
		return `any two share ${least === most ? least : `${least} to ${most}`}`;
	};
</script>

{#if mayChange}
	<div class="mb-3 flex flex-wrap items-center gap-3">
		<span>Make</span>
		<NumberField label="How many forms" whole least={1} most={60} required bind:value={many} />
		<span>{many === 1 ? 'form' : 'forms'}</span>
		<Segments
			bind:value={way}
			label="What the forms have in common"
			choices={[
				{ value: 'apart', name: 'as little in common as can be' },
				{ value: 'same', name: 'the same questions, in other orders' }
			]}
		/>
		<label class="mute flex items-center gap-2"
			>Seed <input class="input w-28" maxlength="100" bind:value={seed} /></label
		>
		<button type="button" class="btn btn-sm preset-filled-brand" disabled={busy || many === null} onclick={make}
			>Make {count(many ?? 0, 'form')}</button
		>
	</div>
{/if}
{#if failure}<p class="notice broken" role="alert">{failure}</p>{/if}
{#if sets?.length}
	<table class="table">
		<thead
			><tr
				><th>Made</th><th class="number">Forms</th><th>In common</th><th>Print</th><th>Send</th><th
					><span class="visually-hidden">Do</span></th
				></tr
			></thead
		>
		<tbody>
			{#each sets as set (set.id)}<tr class:chosen={marked === set.id}
					><td
						>{dateTime(set.made)}{#if set.by}<span class="mute block text-[13px]">{set.by}</span>{/if}</td
					><td class="number">{set.forms.forms.length}</td><td
						>{sharedText(set)}{#if !set.forms.same && set.forms.forms.length > 1}<span class="mute block text-[13px]"
								>{count(set.forms.reached, 'question')} shared by pairs in all; the least possible is {set.forms
									.least}{set.forms.reached === set.forms.least ? ', which is reached' : ''}</span
							>{/if}{#if set.changed || set.gone}<span class="doubtful block text-[13px]"
								>{[
									...(set.changed ? [`${count(set.changed, 'question')} changed since`] : []),
									...(set.gone ? [`${count(set.gone, 'question')} gone since`] : [])
								].join(', ')}</span
							>{/if}</td
					><td class="whitespace-nowrap"
						><a class="word" href={printed(set.id, 'papers')}>papers</a> ·
						<a class="word" href={printed(set.id, 'keys')}>keys</a> ·
						<a class="word" href="{sheet.address}/print/word?forms={set.id}&what=papers" download>Word</a></td
					><td
						><a
							class="word"
							href="/courses/{courseId}/dispatch?forms={set.id}"
							title="Each form as a quiz that is fixed">as fixed quizzes</a
						></td
					><td class="number whitespace-nowrap"
						><button
							type="button"
							class="word"
							aria-pressed={marked === set.id}
							onclick={() => (marked = marked === set.id ? null : set.id)}>mark answers</button
						>{#if mayChange}<span class="mute mx-1">·</span><button type="button" class="word" onclick={() => drop(set)}
								>throw away</button
							>{/if}</td
					></tr
				>{/each}
		</tbody>
	</table>
	{#if marked !== null}{#key marked}<FormMarks {sheet} id={marked} {mayChange} {courseId} />{/key}{/if}
{:else if sets}<p class="mute">
		No forms yet. A form is the quiz on paper: each has a letter, its own questions or its own order, and a key.
	</p>{/if}

<style>
	button {
		cursor: pointer;
	}
</style>
