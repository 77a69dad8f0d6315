<script lang="ts">
	import type { UnreadableQuestion } from '$core/kinds';
	import type { Showing } from '../showing';

	/** Why a question could not be read. */
	let { question }: Showing<UnreadableQuestion> = $props();
</script>

<div class="notice broken"><b>Kept as it came.</b> {question.reason}</div>
