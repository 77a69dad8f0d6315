<script lang="ts">
	import type { Question } from '$core/kinds';
	import { earnings } from '$core/scoring/earnings';

	/** A line that says what the best, the worst and a guessed answer earn. */
	let { question }: { question: Question } = $props();

	const earned = $derived.by(() => {
		try {
			return earnings(question);
		} catch {
			// while it is being written a question may be none
			return null;
		}
	});
	const worth = (credit: number) => {
		const share = `${Math.round(credit * 1000) / 10} %`;
		return question.points === null
			? share
			: `${Math.round(credit * question.points * 100) / 100} of ${question.points}`;
	};
</script>

{#if earned}
	<p class="mute text-[13px]" role="status">
		The best answer earns <b class:broken={earned.best < 1}>{worth(earned.best)}</b>, the worst {worth(
			earned.worst
		)}{earned.guessed === null ? '' : `, a guessed one ${worth(earned.guessed)} on average`}.
	</p>
{/if}
