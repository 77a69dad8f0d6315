<script lang="ts">
	import type { Editing } from '../editing';
	import type { FillBlanksQuestion, ListEntry } from '$core/kinds';
	import { blankMarker, replaceBlanks } from '$core/markup/markers';
	import { serialise } from '$core/xml/serialise';
	import RichText from '../../RichText.svelte';
	import AcceptedNumbers from './AcceptedNumbers.svelte';
	import AcceptedTexts from './AcceptedTexts.svelte';
	import { fresh } from './credit';
	import CreditField from './CreditField.svelte';
	import List from './List.svelte';

	/** What each blank of a question accepts. Its place is in the stem, and stays there. */
	let { question = $bindable(), attachments, courseId }: Editing<FillBlanksQuestion> = $props();

	/** Puts a blank at the end of the stem, from where it is moved in the text; all blanks share the points alike then. */
	function addBlank(form: 'text' | 'number') {
		const identifier = fresh(question.blanks.map((blank) => blank.identifier));
		const share = 1 / (question.blanks.length + 1);
		const made =
			form === 'text'
				? { identifier, share, form, accepted: [{ text: '', credit: 1, caseSensitive: false }] }
				: { identifier, share, form, accepted: [{ value: 0, tolerance: 0, credit: 1 }], whole: false };
		question.blanks = [...question.blanks.map((blank) => ({ ...blank, share })), made];
		const marker = serialise([blankMarker(identifier)]);
		question.stem = /<\/p>$/.test(question.stem)
			? question.stem.replace(/<\/p>$/, ` ${marker}</p>`)
			: `${question.stem} ${marker}`;
	}
	function takeOut(identifier: string) {
		question.blanks = question.blanks.filter((blank) => blank.identifier !== identifier);
		question.stem = replaceBlanks(question.stem, (other, block) =>
			other === identifier ? '' : serialise([blankMarker(other, block)])
		);
	}
	const plain = (markup: string) => markup.replace(/<[^>]+>/g, '');
</script>

{#each question.blanks as blank (blank.identifier)}
	{@const of = ` of blank ${blank.identifier}`}
	<fieldset>
		<legend
			>[{blank.identifier}]
			<span class="flex items-center gap-2"
				><label class="mute">share <CreditField bind:credit={blank.share} label="Share{of}" /></label>
				<button
					type="button"
					class="btn btn-sm preset-outlined-brand"
					aria-label="Take blank {blank.identifier} out"
					onclick={() => takeOut(blank.identifier)}>×</button
				></span
			></legend
		>
		{#if blank.form === 'text'}<AcceptedTexts bind:accepted={blank.accepted} {of} />
		{:else if blank.form === 'number'}<AcceptedNumbers bind:accepted={blank.accepted} {of} />
		{:else if blank.form === 'list'}
			<List
				bind:items={blank.entries}
				what="entry{of}"
				make={() => ({ identifier: fresh(blank.entries.map((entry) => entry.identifier)), text: '', credit: 0 })}
			>
				{#snippet line(entry: ListEntry, at: number)}
					<RichText bind:value={entry.text} {attachments} {courseId} label="Entry {at + 1}{of}" small />
					<CreditField bind:credit={entry.credit} label="Credit of entry {at + 1}{of}" />
				{/snippet}
			</List>
		{:else if blank.form === 'word'}
			<List
				bind:items={blank.words}
				what="word{of}"
				make={() => ({ word: question.bank[0]?.identifier ?? '', credit: 1 })}
			>
				{#snippet line(entry: { word: string; credit: number }, at: number)}
					<select class="select min-w-0 flex-1" aria-label="Word {at + 1}{of}" bind:value={entry.word}
						>{#each question.bank as word (word.identifier)}<option value={word.identifier}>{plain(word.text)}</option
							>{/each}</select
					>
					<CreditField bind:credit={entry.credit} label="Credit of word {at + 1}{of}" />
				{/snippet}
			</List>
		{:else}<p class="mute">It is answered at length, and marked by a person.</p>{/if}
	</fieldset>
{/each}
<div class="flex gap-2">
	<button type="button" class="btn btn-sm preset-outlined-brand" onclick={() => addBlank('text')}
		>Add a blank for words</button
	>
	<button type="button" class="btn btn-sm preset-outlined-brand" onclick={() => addBlank('number')}
		>Add a blank for a number</button
	>
</div>
{#if question.bank.length}
	<List
		bind:items={question.bank}
		what="word"
		head="Words to fill in"
		make={() => ({ identifier: fresh(question.bank.map((entry) => entry.identifier)), text: '', uses: 1 })}
	>
		{#snippet line(word, at)}
			<RichText bind:value={word.text} {attachments} {courseId} label="Word {at + 1}" small />
		{/snippet}
	</List>
{/if}

<style>
	fieldset {
		min-width: 0;
		border-top: 1px solid var(--line);
		padding-top: 6px;
	}
	legend {
		float: left;
		width: 100%;
		display: flex;
		justify-content: space-between;
		align-items: center;
		font-size: 13px;
	}
	legend + :global(*) {
		clear: both;
	}
</style>
