<script lang="ts">
	import { isChoice, type Question } from '$core/kinds';
	import type { Attachment } from '$core/model/question';
	import Toggle from '../Toggle.svelte';
	import RichText from '../RichText.svelte';
	import TagsField from '../TagsField.svelte';

	/** The fields that all kinds of question have beside title, points and stem: what is told, hints, tags and the rest. */
	let {
		question = $bindable(),
		attachments,
		courseId
	}: { question: Question; attachments: Attachment[]; courseId: number } = $props();

	const parts = [
		['general', 'Feedback'],
		['correct', 'When it is right'],
		['partly', 'When it is partly right'],
		['incorrect', 'When it is wrong']
	] as const;
	const lacking = $derived(parts.filter(([part]) => question.feedback[part] === undefined));
</script>

{#if 'shuffle' in question && question.kind !== 'true-false'}
	<div class="text-[13px]">
		<Toggle
			on={question.shuffle === true}
			change={(on) => {
				if ('shuffle' in question) question.shuffle = on;
			}}
			label="shuffled for each student"
		/>
	</div>
{/if}
{#if isChoice(question) && question.kind === 'multiple-response'}
	<label
		>Credit
		<select class="select w-full" bind:value={question.combination}>
			<option value="sum">of each option adds up</option>
			<option value="all">is all or nothing</option>
		</select></label
	>
{/if}
{#each parts as [part, words] (part)}
	{#if question.feedback[part] !== undefined}<div>
			<p class="flex justify-between">
				<span>{words}</span><button
					type="button"
					class="word"
					aria-label="No feedback: {words}"
					onclick={() => {
						const { [part]: _, ...rest } = question.feedback;
						question.feedback = rest;
					}}>take out</button
				>
			</p>
			<RichText bind:value={question.feedback[part]} {attachments} {courseId} label="Feedback, {part}" small />
		</div>{/if}
{/each}
{#each question.hints as _, at (at)}
	<div>
		<p class="flex justify-between">
			<span>Hint {at + 1}</span><button
				type="button"
				class="word"
				aria-label="Take hint {at + 1} out"
				onclick={() => (question.hints = question.hints.filter((__, place) => place !== at))}>take out</button
			>
		</p>
		<RichText bind:value={question.hints[at]!} {attachments} {courseId} label="Hint {at + 1}" small />
	</div>
{/each}
{#if question.stimulus}<div>
		<p>What it shares with others</p>
		<RichText bind:value={question.stimulus.content} {attachments} {courseId} label="What it shares with others" />
	</div>{/if}
<div class="flex flex-wrap gap-2">
	{#each lacking as [part, words] (part)}<button
			type="button"
			class="btn btn-sm preset-outlined-brand"
			onclick={() => (question.feedback = { ...question.feedback, [part]: '' })}>+ {words.toLowerCase()}</button
		>{/each}
	<button
		type="button"
		class="btn btn-sm preset-outlined-brand"
		onclick={() => (question.hints = [...question.hints, ''])}>+ hint</button
	>
</div>
<div class="flex gap-3">
	<div class="flex-1"><TagsField label="Tags" bind:tags={question.tags} {courseId} /></div>
	<label
		>Difficulty <input
			class="input w-24"
			maxlength="60"
			value={question.difficulty ?? ''}
			onchange={(event) => (question.difficulty = event.currentTarget.value.trim() || undefined)}
		/></label
	>
	<label
		>Language <input
			class="input w-20"
			maxlength="35"
			value={question.language ?? ''}
			onchange={(event) => (question.language = event.currentTarget.value.trim() || null)}
		/></label
	>
</div>

<style>
	label,
	div > p {
		color: var(--ink2);
		font-size: 13px;
	}
	.word {
		cursor: pointer;
		color: var(--woad);
	}
</style>
