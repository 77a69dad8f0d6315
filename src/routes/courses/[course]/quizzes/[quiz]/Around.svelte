<script lang="ts">
	import { countedAttempts, quizSettingsShape, shownThings, shownTimes } from '$lib/forms/quiz';
	import DateField from '$lib/ui/DateField.svelte';
	import NumberField from '$lib/ui/NumberField.svelte';
	import Segments from '$lib/ui/Segments.svelte';
	import Toggle from '$lib/ui/Toggle.svelte';
	import { ValidationError } from 'yup';
	import type { Sheet } from './sheet.svelte';
	import Versions from './Versions.svelte';

	/** What is around a sheet: words, limits, dates, what is shown after, the grade, its state, its versions. */
	let { sheet, mayChange }: { sheet: Sheet; mayChange: boolean } = $props();

	const settings = $derived(sheet.quiz.settings);
	const disabled = $derived(!mayChange);
	const wrong = $derived.by(() => {
		try {
			quizSettingsShape.validateSync(settings, { abortEarly: false });
			return '';
		} catch (cause) {
			return cause instanceof ValidationError ? cause.errors.join(' ') : '';
		}
	});
	const states = [
		{ value: 'draft', name: 'draft' },
		{ value: 'ready', name: 'ready' },
		{ value: 'sent', name: 'sent' }
	] as const;
	const dates = [
		{ name: 'opens', label: 'Opens' },
		{ name: 'due', label: 'Due' },
		{ name: 'closes', label: 'Closes' }
	] as const;
	const id = $props.id();
</script>

{#if wrong}<p class="notice broken" role="alert">{wrong} It is not saved until that is mended.</p>{/if}
<div class="around">
	<section>
		<h2>Words</h2>
		<label for="{id}-description">Description, for those who teach</label>
		<textarea
			id="{id}-description"
			class="textarea w-full"
			rows="2"
			maxlength="5000"
			{disabled}
			bind:value={sheet.quiz.settings.description}></textarea>
		<label for="{id}-instructions">Instructions, for those who sit it</label>
		<textarea
			id="{id}-instructions"
			class="textarea w-full"
			rows="4"
			maxlength="20000"
			{disabled}
			bind:value={sheet.quiz.settings.instructions}></textarea>
		<h2 class="mt-4">State</h2>
		<Segments
			value={sheet.quiz.state}
			change={(state) => mayChange && (sheet.quiz.state = state)}
			label="State"
			choices={states}
		/>
	</section>
	<section>
		<h2>Limits and dates</h2>
		<div class="pairs">
			<span>Time limit</span>
			<span
				><NumberField
					label="Time limit in minutes"
					width="76px"
					placeholder="none"
					least={1}
					most={20160}
					{disabled}
					bind:value={sheet.quiz.settings.minutes}
				/> minutes</span
			>
			<span>Attempts</span>
			<span
				><NumberField
					label="How many attempts"
					width="76px"
					placeholder="any"
					whole
					least={1}
					most={1000}
					{disabled}
					bind:value={sheet.quiz.settings.attempts}
				/>
				of which
				<select
					class="select w-auto"
					aria-label="Which attempt counts"
					{disabled}
					bind:value={sheet.quiz.settings.counted}
					>{#each countedAttempts as counted (counted)}<option value={counted}
							>{counted === 'average' ? 'the average' : `the ${counted}`}</option
						>{/each}</select
				> counts</span
			>
			{#each dates as { name, label } (name)}
				<span>{label}</span>
				<DateField
					{label}
					timed
					time={name === 'opens' ? '08:00' : '23:59'}
					{disabled}
					bind:value={sheet.quiz.settings[name]}
				/>
			{/each}
		</div>
	</section>
	<section>
		<h2>What is shown after</h2>
		<Segments
			value={settings.shownWhen}
			change={(when) => mayChange && (sheet.quiz.settings.shownWhen = when)}
			label="When it is shown"
			choices={shownTimes.map((value) => ({ value, name: value }))}
		/>
		{#if settings.shownWhen !== 'never'}<div class="mt-2 flex flex-col gap-1">
				{#each shownThings as thing (thing)}<Toggle
						on={settings.shown.includes(thing)}
						{disabled}
						label={thing}
						change={(on) =>
							(sheet.quiz.settings.shown = on
								? [...settings.shown, thing]
								: settings.shown.filter((other) => other !== thing))}
					/>{/each}
			</div>{/if}
	</section>
	<section>
		<h2>Grade</h2>
		<div class="pairs">
			<span>Passed from</span>
			<span
				><NumberField
					label="Pass mark in percent"
					width="76px"
					placeholder="none"
					most={100}
					{disabled}
					bind:value={sheet.quiz.settings.pass}
				/> % of the points</span
			>
			<label for="{id}-grade">Counts as</label>
			<input
				id="{id}-grade"
				class="input"
				placeholder="name in the grades"
				maxlength="190"
				{disabled}
				bind:value={sheet.quiz.settings.gradeName}
			/>
			<span>Worth</span>
			<span
				><NumberField
					label="Points in the grades"
					width="76px"
					placeholder="its own"
					most={100000}
					{disabled}
					bind:value={sheet.quiz.settings.gradePoints}
				/> points</span
			>
		</div>
		<div class="mt-2">
			<Toggle bind:on={sheet.quiz.settings.gradeScaled} {disabled} label="the points of the quiz are scaled to these" />
		</div>
	</section>
	<section class="wide"><Versions {sheet} {mayChange} /></section>
</div>

<style>
	.around {
		display: grid;
		grid-template-columns: repeat(2, minmax(0, 1fr));
		gap: 20px 32px;
		margin-top: 12px;
	}
	section {
		min-width: 0;
	}
	.wide {
		grid-column: 1 / -1;
	}
	.pairs {
		display: grid;
		grid-template-columns: max-content minmax(0, 1fr);
		gap: 8px 14px;
		align-items: center;
	}
	@media (max-width: 1000px) {
		.around {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
