<script lang="ts">
	import type { WordForms } from '$core/paper/word/document';
	import { totalText, worthText } from '$core/paper/worth';
	import { rich } from '$lib/ui/rich';
	import { count } from '$lib/ui/words';
	import Blocks from './Blocks.svelte';

	/** One form as it is handed out: a place for the name, the questions, space to write. */
	let {
		title,
		instructions,
		minutes,
		parts,
		form,
		courseId,
		several
	}: {
		title: string;
		instructions: string;
		minutes: number | null;
		parts: readonly string[];
		form: WordForms['forms'][number];
		courseId: number;
		several: boolean;
	} = $props();

	const outOf = $derived(totalText(form.questions));
	const begins = (at: number) => at === 0 || form.questions[at - 1]!.part !== form.questions[at]!.part;
</script>

<article class="form">
	<header>
		<div class="line">
			<span class="name heading">{title}</span>
			{#if several}<span class="letter heading" aria-label="Form {form.name}">{form.name}</span>{/if}
		</div>
		<div class="line fields">
			<span>Name <span class="rule"></span></span><span>Date <span class="rule short"></span></span>
			<span>Points <span class="rule short"></span> {outOf && `of ${outOf}`}</span>
		</div>
		{#if instructions || minutes}<p class="said">
				{[instructions, ...(minutes ? [`Time: ${count(minutes, 'minute')}.`] : [])].filter(Boolean).join(' ')}
			</p>{/if}
	</header>
	{#each form.questions as question, at (question.id)}
		{#if begins(at) && parts.length > 1 && parts[question.part]}<h2>{parts[question.part]}</h2>{/if}
		<section>
			<div class="number">{question.number ?? ''}</div>
			<div class="body">
				{#if question.number !== null}<span class="points">{worthText(question)}</span>{/if}
				<div class="rich">
					<!-- cleaned by core/markup before it was stored, and there is a content security policy besides -->
					{#if question.stimulus}<!-- eslint-disable-next-line svelte/no-at-html-tags -->
						<div>{@html rich(question.stimulus, question.attachments, courseId)}</div>{/if}
					<!-- eslint-disable-next-line svelte/no-at-html-tags -->
					{@html rich(question.stem, question.attachments, courseId)}
				</div>
				<Blocks blocks={question.blocks} attachments={question.attachments} {courseId} />
			</div>
		</section>
	{/each}
</article>

<style>
	.form {
		max-width: 178mm;
		margin-bottom: 40px;
		font-size: 14.5px;
		color: var(--ink);
	}
	.line {
		display: flex;
		justify-content: space-between;
		align-items: baseline;
		gap: 20px;
	}
	.name {
		font-size: 20px;
	}
	.letter {
		font-size: 24px;
		border: 1.5px solid currentColor;
		border-radius: 50%;
		min-width: 38px;
		text-align: center;
		line-height: 36px;
	}
	.fields {
		margin: 14px 0 10px;
	}
	.rule {
		display: inline-block;
		width: 62mm;
		border-bottom: 1px solid currentColor;
	}
	.rule.short {
		width: 22mm;
	}
	.said {
		white-space: pre-wrap;
		margin-bottom: 8px;
	}
	h2 {
		margin: 16px 0 4px;
		break-after: avoid;
	}
	section {
		display: flex;
		gap: 12px;
		padding: 10px 0;
		border-top: 1px solid var(--line);
		break-inside: avoid;
	}
	.number {
		flex: 0 0 22px;
		font-weight: 700;
		text-align: right;
	}
	.body {
		flex: 1;
		min-width: 0;
	}
	.points {
		float: right;
		margin-left: 12px;
		color: var(--ink2);
		font-size: 12.5px;
	}
	@media print {
		.form {
			break-after: page;
			max-width: none;
			color: #000;
			margin: 0;
		}
		.form:last-child {
			break-after: auto;
		}
	}
</style>
