<script lang="ts">
	import type { ShortAnswerQuestion } from '$core/kinds';
	import type { Editing } from '../editing';
	import AcceptedTexts from './AcceptedTexts.svelte';

	/** The texts that a short answer accepts. */
	let { question = $bindable() }: Editing<ShortAnswerQuestion> = $props();
</script>

<AcceptedTexts bind:accepted={question.accepted} />
