<script lang="ts">
	import type { LabelImageQuestion } from '$core/kinds';
	import type { Showing } from '../showing';
	import Frame from './Frame.svelte';
	import Pairs from './Pairs.svelte';

	/** A picture with the places on it, and the labels that are laid on them. */
	let { question, mode, answer, onanswer, html, picture }: Showing<LabelImageQuestion> = $props();

	const rights = $derived(
		question.targets.map(({ identifier }, at) => ({
			identifier,
			text: `Place ${at + 1}`,
			markup: `Place ${at + 1}`
		}))
	);
</script>

<Frame
	picture={question.picture}
	address={picture(question.picture.name)}
	places={question.targets}
	right={(_) => mode === 'key'}
/>
<Pairs {question} lefts={question.labels} {rights} {mode} {answer} {onanswer} {html} />
