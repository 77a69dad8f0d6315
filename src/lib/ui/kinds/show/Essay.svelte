<script lang="ts">
	import type { EssayQuestion } from '$core/kinds';
	import type { Showing } from '../showing';

	/** A box to write in at length. */
	let { mode, answer, onanswer }: Showing<EssayQuestion> = $props();
</script>

{#if mode === 'try'}<textarea
		class="textarea mt-3 w-full"
		rows="6"
		aria-label="Your answer"
		value={answer.text ?? ''}
		oninput={(event) => onanswer({ text: event.currentTarget.value })}></textarea>{:else}<p class="mute mt-3">
		Answered in writing, marked by a person.
	</p>{/if}
