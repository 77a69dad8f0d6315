<script lang="ts">
	import { enhance } from '$app/forms';
	import type { Slips } from '$lib/server/forms';
	import Field from '$lib/ui/Field.svelte';

	/** What a course is called. */
	let {
		course,
		mayManage,
		slips
	}: { course: { name: string; code: string; intake: string }; mayManage: boolean; slips: Slips | null } = $props();
</script>

<form
	method="POST"
	action="?/rename"
	use:enhance={() =>
		({ update }) =>
			update({ reset: false })}
	class="flex max-w-[420px] flex-col gap-3"
>
	<fieldset disabled={!mayManage} class="contents">
		<Field label="Name" name="name" value={course.name} form={slips} of="rename" required />
		<Field
			label="Code"
			name="code"
			value={course.code}
			form={slips}
			of="rename"
			hint="no other course has it"
			required
		/>
		<Field label="Intake" name="intake" value={course.intake} form={slips} of="rename" />
		{#if mayManage}<button class="btn btn-sm preset-filled-brand self-start">Keep it</button>{/if}
	</fieldset>
</form>
