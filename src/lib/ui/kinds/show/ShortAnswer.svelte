<script lang="ts">
	import type { ShortAnswerQuestion } from '$core/kinds';
	import { visible } from '$core/markup/visible';
	import { percentOf } from '../../percent';
	import type { Showing } from '../showing';
	import AnswerBox from './AnswerBox.svelte';

	/** The texts that are accepted, or a box to write one. */
	let { question, mode, answer, onanswer, give }: Showing<ShortAnswerQuestion> = $props();
</script>

{#if mode === 'try'}<AnswerBox {answer} {onanswer} {give} />
{:else}
	<table class="table mt-3">
		<tbody>
			{#each question.accepted as accepted, at (at)}
				<tr
					><td
						><span class="whole">{visible(accepted.text)}</span>
						{#if accepted.match}<span class="faint"
								>{accepted.match === 'pattern' ? 'as a pattern' : 'somewhere in the answer'}</span
							>{/if}
						{#if accepted.caseSensitive}<span class="faint">capitals matter</span>{/if}</td
					><td class="number mute">{accepted.credit >= 1 ? 'all points' : percentOf(accepted.credit)}</td></tr
				>
			{:else}<tr><td class="mute">No answer is accepted.</td></tr>{/each}
		</tbody>
	</table>
{/if}
