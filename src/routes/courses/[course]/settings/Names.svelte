<script lang="ts">
	import type { Slips } from '$lib/server/forms';
	import { courseDetails } from '$lib/forms/course';
	import Field from '$lib/ui/Field.svelte';
	import Form from '$lib/ui/Form.svelte';

	/** What a course is called. */
	let {
		course,
		mayManage,
		slips
	}: { course: { name: string; code: string; intake: string }; mayManage: boolean; slips: Slips | null } = $props();
</script>

<Form
	schema={courseDetails}
	action="?/rename"
	name="rename"
	answer={slips}
	keeps
	class="flex max-w-[420px] flex-col gap-3"
>
	<fieldset disabled={!mayManage} class="contents">
		<Field label="Name" name="name" value={course.name} required />
		<Field label="Code" name="code" value={course.code} hint="one that no other course has" required />
		<Field label="Intake" name="intake" value={course.intake} />
		{#if mayManage}<button class="btn btn-sm preset-filled-brand self-start">Keep it</button>{/if}
	</fieldset>
</Form>
