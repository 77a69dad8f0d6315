<script lang="ts">
	import type { Slips } from '$lib/server/forms';
	import { courseDetails } from '$lib/forms/course';
	import Field from '$lib/ui/Field.svelte';
	import Form from '$lib/ui/Form.svelte';
	import Outside from '$lib/ui/Outside.svelte';
	import Segments from '$lib/ui/Segments.svelte';
	import { count, dateTime, figure } from '$lib/ui/words';
	import Plus from '@lucide/svelte/icons/plus';
	import { enhance } from '$lib/ui/refresh';

	let { data, form } = $props();
	const slips = $derived(form as Slips | null);
	let words = $state('');
	let shown = $state<'open' | 'archived' | 'binned'>('open');
	let making = $state(false);
	const wants = $derived(words.trim().toLowerCase());
	const held = (state: string) => data.courses.filter((course) => course.state === state).length;
	const states = $derived([
		{ value: 'open', name: `Open ${held('open')}` },
		{ value: 'archived', name: `Archive ${held('archived')}` },
		{ value: 'binned', name: `Bin ${held('binned')}` }
	] as const);
	const found = $derived(
		data.courses.filter(
			({ name, code, intake, state }) => state === shown && `${name} ${code} ${intake}`.toLowerCase().includes(wants)
		)
	);
	const may = { look: 'look', work: 'work', manage: 'manage' };
</script>

<Outside person={data.person} title="Courses">
	<div class="mb-3 flex items-center gap-3">
		<h1 class="mr-auto">Courses</h1>
		<input
			class="input w-60"
			type="search"
			placeholder="find by name, code, intake"
			aria-label="Find a course"
			bind:value={words}
		/>
		{#if held('archived') || held('binned')}<Segments choices={states} bind:value={shown} label="Which courses" />{/if}
		{#if data.person.keeper}<button
				class="btn btn-sm preset-filled-brand"
				aria-expanded={making || slips?.form === 'make'}
				onclick={() => (making = !making)}><Plus size={14} /> Make a course</button
			>{/if}
	</div>
	{#if making || slips?.form === 'make'}
		<div class="making">
			<Form schema={courseDetails} action="?/make" name="make" answer={slips} class="flex items-start gap-3">
				<Field label="Name" name="name" required />
				<Field label="Code" name="code" required hint="one that no other course has" width="190px" />
				<Field label="Intake" name="intake" width="190px" />
				<button class="btn btn-sm preset-filled-brand mt-[19px]">Make it</button>
			</Form>
		</div>
	{/if}
	<table class="table">
		<thead
			><tr
				><th>Course</th><th>Code</th><th>Intake</th><th class="number">Questions</th><th class="number"
					>Loads to review</th
				><th class="number">Broken</th><th class="number">Draft quizzes</th><th>You may</th></tr
			></thead
		>
		<tbody>
			{#each found as course (course.id)}
				<tr>
					<td
						>{#if course.state === 'binned'}{course.name}{:else}<a class="word" href="/courses/{course.id}/loads"
								><b>{course.name}</b></a
							>{/if}</td
					>
					<td class="mute">{course.code}</td>
					<td class="mute">{course.intake}</td>
					<td class="number">{figure(course.questions)}</td>
					<td class="number">{course.loads || ''}</td>
					<td class="number" class:broken={course.broken}>{course.broken ? figure(course.broken) : ''}</td>
					<td class="number">{course.quizzes || ''}</td>
					<td class="mute whitespace-nowrap"
						>{#if course.state === 'binned'}<form
								method="POST"
								action="?/putBack"
								use:enhance
								class="flex items-center gap-2"
							>
								<input type="hidden" name="course" value={course.id} />
								<span>since {course.settled ? dateTime(course.settled) : 'some time'}</span>
								<button class="btn btn-sm preset-outlined-brand" aria-label="Put {course.name} back">Put it back</button
								>
							</form>{:else}{may[course.role]}{/if}</td
					>
				</tr>
			{:else}<tr
					><td colspan="8" class="mute"
						>{words
							? `No course here has “${words}” in its name, code or intake.`
							: shown === 'open'
								? data.person.keeper
									? 'There is no course yet. Make the first one.'
									: "You belong to no course yet. Ask whoever looks after the school's courses."
								: 'Nothing is here.'}</td
					></tr
				>{/each}
		</tbody>
	</table>
	<p class="mute mt-2 text-[13px]">{count(found.length, 'course')}</p>
</Outside>

<style>
	.making {
		margin-bottom: 18px;
		padding: 12px 14px;
		border: 1px solid var(--line2);
		border-radius: 6px;
	}
</style>
