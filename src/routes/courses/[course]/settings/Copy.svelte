<script lang="ts">
	import type { CourseCopy } from '$lib/server/courses/copy';
	import { courseCopy } from '$lib/forms/course';
	import { send } from '$lib/ui/doing';
	import Field from '$lib/ui/Field.svelte';
	import Form from '$lib/ui/Form.svelte';
	import { count, figure } from '$lib/ui/words';

	/** A copy of a course under another code, as for the next intake. */
	let {
		course,
		mayManage,
		questions
	}: {
		course: { id: number; name: string; code: string };
		mayManage: boolean;
		questions: number;
	} = $props();

	let busy = $state(false);
	let copy = $state.raw<(CourseCopy & { name: string }) | null>(null);
	let failure = $state('');

	async function copyIt(filled: Record<string, unknown>): Promise<Record<string, string>> {
		copy = null;
		failure = '';
		const sent = await send<CourseCopy | { taken: string }>(`/courses/${course.id}/settings/copy`, filled);
		if (!sent.ok) failure = sent.message;
		else if ('taken' in sent.value) return { code: sent.value.taken };
		else copy = { ...sent.value, name: String(filled.name) };
		return {};
	}
</script>

<Form schema={courseCopy} name="copy" send={copyIt} keeps bind:busy class="flex max-w-[420px] flex-col gap-3">
	<p class="mute">
		All banks with their {figure(questions)} questions are copied, with their categories and files. Loads, dispatches and
		people stay here.
	</p>
	<fieldset disabled={!mayManage || busy} class="contents">
		<Field label="Name" name="name" value={course.name} required />
		<Field label="Code" name="code" hint="one that no other course has" required />
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
	{#if failure}<p class="notice broken" role="alert">{failure}</p>{/if}
	{#if copy}<p class="notice whole" role="status">
			Copied: {count(copy.banks, 'bank')}, {count(copy.questions, 'question')}, {count(
				copy.quizzes,
				'quiz',
				'quizzes'
			)}.
			<a class="word" href="/courses/{copy.id}/banks">Open {copy.name}</a>
		</p>{/if}
</Form>
