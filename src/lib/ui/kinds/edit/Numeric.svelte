<script lang="ts">
	import type { NumericQuestion } from '$core/kinds';
	import type { Editing } from '../editing';
	import AcceptedNumbers from './AcceptedNumbers.svelte';

	/** The numbers that a numeric question accepts. */
	let { question = $bindable() }: Editing<NumericQuestion> = $props();
</script>

<AcceptedNumbers bind:accepted={question.accepted} />
