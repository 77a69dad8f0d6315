<script lang="ts">
	import { checks } from '$core/checks';
	import { severities } from '$core/reports/report';
	import { courseSettings, severitiesOf, type CourseSettings } from '$lib/forms/course-settings';
	import type { Slips } from '$lib/server/forms';
	import Field from '$lib/ui/Field.svelte';
	import Form from '$lib/ui/Form.svelte';
	import Mark from '$lib/ui/Mark.svelte';

	/** What a course goes by: what hand-made questions begin with, what loads begin with, which checks are on. */
	let { settings, mayManage, slips }: { settings: CourseSettings; mayManage: boolean; slips: Slips | null } = $props();

	const there = [
		['skip', 'leave them: the course has them'],
		['beside', 'take them in beside those'],
		['replace', 'put them in the place of those']
	] as const;
	const errors = [
		['aside', 'take the good, set those aside'],
		['nothing', 'take nothing unless all is well'],
		['each', 'decide on each']
	] as const;
	const groups = (['broken', 'doubtful', 'untidy'] as const).map((severity) => ({
		severity,
		checks: checks.filter((check) => check.severity === severity)
	}));
	const names = { broken: 'Broken', doubtful: 'Doubtful', untidy: 'Untidy' };
	const off = $derived(new Set<string>(settings.checksOff));
	const grave = $derived(severitiesOf(settings));
</script>

<Form schema={courseSettings} action="?/settings" name="settings" answer={slips} keeps class="">
	<fieldset disabled={!mayManage} class="flex flex-col gap-7">
		<section class="flex flex-col gap-3">
			<h2>Questions made by hand begin with</h2>
			<div class="flex gap-4">
				<Field
					label="Language"
					name="language"
					value={settings.language}
					hint="en, de, pt-BR; empty for none"
					width="220px"
				/>
				<Field
					label="Points"
					name="points"
					inputmode="decimal"
					value={String(settings.points ?? '')}
					hint="empty for none"
					width="140px"
				/>
			</div>
		</section>
		<section class="flex flex-col gap-3">
			<h2>Loads begin with</h2>
			<div class="flex flex-wrap gap-4">
				<Field
					label="Shares of credit that are allowed, in percent"
					name="creditSteps"
					value={settings.creditSteps.join(', ')}
					hint="empty for any"
					width="340px"
				/>
				<Field
					label="Another credit"
					name="creditOtherwise"
					choices={[
						['keep', 'is taken in as it is'],
						['aside', 'sets the question aside']
					]}
					value={settings.creditOtherwise}
					width="240px"
				/>
				<Field label="Questions in error" name="errors" choices={errors} value={settings.errors} width="260px" />
				<Field label="Questions that are the same" name="same" choices={there} value={settings.same} width="260px" />
				<Field
					label="Questions that were changed"
					name="changed"
					choices={there}
					value={settings.changed}
					width="260px"
				/>
			</div>
			<p class="mute text-[13px]">The last load that was taken in leaves its rules here too.</p>
		</section>
		<section>
			<h2 class="mb-1">Checks</h2>
			<p class="mute mb-2 text-[13px]">
				A check that is off has no snags. One that is turned on, or taken for another severity, goes over all questions
				in the background.
			</p>
			<!-- an empty list is sent too -->
			<input type="hidden" name="checksOff" value="" />
			<input type="hidden" name="severities" value="" />
			<div class="grid grid-cols-3 gap-x-8">
				{#each groups as group (group.severity)}
					<div>
						<h3 class="mb-1"><Mark severity={group.severity} word={names[group.severity]} /></h3>
						{#each group.checks as check (check.id)}
							<label class="flex items-center justify-between gap-2 py-[3px]" title={check.why}
								><span class="text-[13.5px]">{check.title}</span>
								<select
									class="select"
									aria-label="How grave: {check.title}"
									name={off.has(check.id) ? 'checksOff' : 'severities'}
									value={off.has(check.id) ? check.id : grave.has(check.id) ? `${check.id} ${grave.get(check.id)}` : ''}
									onchange={(event) =>
										(event.currentTarget.name = event.currentTarget.value === check.id ? 'checksOff' : 'severities')}
								>
									<option value="">{check.severity}</option>
									{#each severities.filter((other) => other !== check.severity) as other (other)}<option
											value="{check.id} {other}">{other}</option
										>{/each}
									<option value={check.id}>off</option>
								</select>
							</label>
						{/each}
					</div>
				{/each}
			</div>
		</section>
		{#if mayManage}<button class="btn btn-sm preset-filled-brand self-start">Keep the settings</button>{/if}
	</fieldset>
</Form>
