<script lang="ts">
	import type { MatchingQuestion } from '$core/kinds';
	import { plainText } from '$core/markup/text';
	import type { Showing } from '../showing';
	import Pairs from './Pairs.svelte';

	/** What is matched, and with what. */
	let { question, mode, answer, onanswer, html }: Showing<MatchingQuestion> = $props();

	const rights = $derived(
		question.right.map(({ identifier, text }) => ({ identifier, text: plainText(text), markup: text }))
	);
	const loose = $derived(
		question.right.filter((right) => !question.pairs.some((pair) => pair.right === right.identifier && pair.credit > 0))
	);
</script>

<Pairs {question} lefts={question.left} {rights} {mode} {answer} {onanswer} {html} />
{#if mode === 'key' && loose.length}<p class="mute mt-2 text-[13px]">
		Belongs to nothing: {loose.map((side) => plainText(side.text)).join(', ')}
	</p>{/if}
