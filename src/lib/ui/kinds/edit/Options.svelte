<script lang="ts">
	import type { Editing } from '../editing';
	import type { ChoiceQuestion } from '$core/kinds';
	import type { Option } from '$core/model/pieces';
	import RichText from '../../RichText.svelte';
	import { fresh } from './credit';
	import CreditField from './CreditField.svelte';
	import List from './List.svelte';

	/** The options of a choice, with their credit, what is right, what keeps its place, and the feedback that there is. */
	let { question = $bindable(), attachments, courseId }: Editing<ChoiceQuestion> = $props();

	function key(option: Option) {
		// what the source named in vain is no key any more
		question.lostKeys = [];
		if (question.kind === 'multiple-response') option.credit = 1;
		else for (const other of question.options) other.credit = other === option ? 1 : 0;
	}
</script>

{#if question.lostKeys.length}<p class="broken">
		The source names {question.lostKeys.map((key) => `“${key}”`).join(', ')} as its key, which is no option. Mark the right
		one.
	</p>{/if}

<List
	bind:items={question.options}
	what="option"
	head="Options"
	unit="credit in percent"
	make={() => ({
		identifier: fresh(question.options.map((other) => other.identifier)),
		text: '',
		credit: 0,
		pinned: false
	})}
>
	{#snippet line(option: Option, at: number)}
		<span class="flex min-w-0 flex-1 flex-col gap-1">
			<RichText bind:value={option.text} {attachments} {courseId} label="Option {at + 1}" small />
			{#if option.feedback !== undefined}<RichText
					bind:value={option.feedback}
					{attachments}
					{courseId}
					label="Feedback of option {at + 1}"
					small
				/>{/if}
		</span>
		<button
			type="button"
			class="btn btn-sm preset-outlined-brand"
			aria-pressed={option.pinned}
			aria-label="Option {at + 1} keeps its place"
			title="keeps its place when options are shuffled"
			onclick={() => (option.pinned = !option.pinned)}>pin</button
		>
		<CreditField bind:credit={option.credit} label="Credit of option {at + 1}" />
		<button
			type="button"
			class="btn btn-sm preset-outlined-brand"
			aria-label="Option {at + 1} is right"
			title="it is right, and no other is"
			onclick={() => key(option)}>key</button
		>
	{/snippet}
</List>

<style>
	button[aria-pressed='true'] {
		background: var(--woad-soft);
	}
</style>
