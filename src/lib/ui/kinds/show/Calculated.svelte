<script lang="ts">
	import type { CalculatedQuestion } from '$core/kinds';
	import { shownValue } from '$core/kinds/calculated/datasets';
	import type { Showing } from '../showing';

	/** The numbers of a calculated question and its answer, or a box to work it out for other numbers. */
	let { question, mode, answer, onanswer }: Showing<CalculatedQuestion> = $props();
</script>

{#if mode === 'key'}
	<table class="table mt-3">
		<tbody>
			{#each question.variables as one (one.name)}
				<tr
					><td><b class="mono">{one.name}</b></td><td
						>{one.values.form === 'range'
							? `${shownValue(one.values.min, null)} to ${shownValue(one.values.max, null)}${one.values.step === null ? '' : ` in steps of ${one.values.step}`}`
							: one.values.form === 'set'
								? `one of ${one.values.values.join(', ')}`
								: `= ${one.values.expression}`}</td
					></tr
				>
			{/each}
			{#each question.constraints as one (one)}<tr><td class="mute">so that</td><td class="mono">{one}</td></tr>{/each}
			<tr
				><td class="mute">answer</td><td
					><span class="mono whole">{question.expression}</span>
					{question.unit ?? ''}
					<span class="faint"
						>{question.tolerance.value
							? `± ${question.tolerance.mode === 'relative' ? `${Math.round(question.tolerance.value * 10000) / 100}\u00a0%` : question.tolerance.value}`
							: 'exactly'}</span
					></td
				></tr
			>
		</tbody>
	</table>
{:else}
	<p class="mt-3">
		<input
			class="input"
			aria-label="Your answer"
			inputmode="decimal"
			value={answer.text ?? ''}
			oninput={(event) => onanswer({ ...answer, text: event.currentTarget.value })}
		/>
		{question.unit ?? ''}
		<button
			type="button"
			class="btn btn-sm preset-outlined-brand"
			onclick={() => onanswer({ seed: String(Number(answer.seed ?? '1') + 1) })}>Other numbers</button
		>
	</p>
{/if}
