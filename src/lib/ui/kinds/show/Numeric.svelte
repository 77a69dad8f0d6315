<script lang="ts">
	import type { NumericQuestion } from '$core/kinds';
	import { acceptedNumberText } from '$core/kinds/answers';
	import { percentOf } from '../../percent';
	import type { Showing } from '../showing';
	import AnswerBox from './AnswerBox.svelte';

	/** The numbers that are accepted, or a box to write one. */
	let { question, mode, answer, onanswer, give }: Showing<NumericQuestion> = $props();
</script>

{#if mode === 'try'}<AnswerBox {answer} {onanswer} {give} numeric />
{:else}
	<table class="table mt-3">
		<tbody>
			{#each question.accepted as accepted, at (at)}
				<tr
					><td><span class="whole">{acceptedNumberText(accepted)}</span></td><td class="number mute"
						>{accepted.credit >= 1 ? 'all points' : percentOf(accepted.credit)}</td
					></tr
				>
			{:else}<tr><td class="mute">No answer is accepted.</td></tr>{/each}
		</tbody>
	</table>
{/if}
