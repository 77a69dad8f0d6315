<script lang="ts">
	import type { Showing } from '../showing';

	/** A box for a short answer, which is marked by the enter key. */
	let {
		answer,
		onanswer,
		give,
		numeric = false
	}: Pick<Showing, 'answer' | 'onanswer' | 'give'> & { numeric?: boolean } = $props();
</script>

<p class="mt-3">
	<input
		class="input"
		aria-label="Your answer"
		inputmode={numeric ? 'decimal' : 'text'}
		value={answer.text ?? ''}
		oninput={(event) => onanswer({ text: event.currentTarget.value })}
		onkeydown={(event) => event.key === 'Enter' && give()}
	/>
</p>
