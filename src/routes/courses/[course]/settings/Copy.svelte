<script lang="ts">
	import type { Slips } from '$lib/server/forms';
	import { courseCopy } from '$lib/forms/course';
	import Field from '$lib/ui/Field.svelte';
	import Form from '$lib/ui/Form.svelte';
	import { figure } from '$lib/ui/words';

	/** A copy of a course under another code, as for the next intake. */
	let {
		course,
		mayManage,
		questions,
		slips
	}: {
		course: { name: string; code: string };
		mayManage: boolean;
		questions: number;
		slips: Slips | null;
	} = $props();

	let busy = $state(false);
</script>

<Form
	schema={courseCopy}
	action="?/copy"
	name="copy"
	answer={slips}
	keeps
	bind:busy
	class="flex max-w-[420px] flex-col gap-3"
>
	<p class="mute">
		All banks with their {figure(questions)} questions are copied, with their categories and files. Loads, dispatches and
		people stay here.
	</p>
	<fieldset disabled={!mayManage || busy} class="contents">
		<Field label="Name" name="name" value={course.name} required />
		<Field label="Code" name="code" hint="no other course has it" required />
		<Field label="Intake" name="intake" />
		<label class="flex items-center gap-2"
			><input type="checkbox" class="checkbox" name="quizzes" checked /> quizzes too, which draw from the copies</label
		>
		<label class="flex items-center gap-2"
			><input type="checkbox" class="checkbox" name="rules" checked /> rules of loads and settings too</label
		>
		{#if mayManage}<button class="btn btn-sm preset-filled-brand self-start"
				>{busy ? 'Copying …' : `Copy ${course.name}`}</button
			>{/if}
	</fieldset>
</Form>
