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
			{#each question.variables as variable (variable.name)}
				<tr
					><td><b class="mono">{variable.name}</b></td><td
						>{variable.values.form === 'range'
							? `${shownValue(variable.values.min, null)} to ${shownValue(variable.values.max, null)}${variable.values.step === null ? '' : ` in steps of ${variable.values.step}`}`
							: variable.values.form === 'set'
								? `one of ${variable.values.values.join(', ')}`
								: `= ${variable.values.expression}`}</td
					></tr
				>
			{/each}
			{#each question.constraints as constraint (constraint)}<tr
					><td class="mute">so that</td><td class="mono">{constraint}</td></tr
				>{/each}
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
