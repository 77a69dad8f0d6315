<script lang="ts">
	import { send } from '$lib/ui/doing';
	import Ask from '$lib/ui/Ask.svelte';

	/** Copies a quiz to another course, and says what it draws from that is not there. */
	let {
		courseId,
		quiz,
		open = $bindable()
	}: { courseId: number; quiz: { id: number; title: string } | null; open: boolean } = $props();

	let courses = $state.raw<{ courseId: number; name: string }[]>([]);
	let to = $state('');
	let busy = $state(false);
	let failure = $state('');
	let done = $state<{ courseId: number; quizId: number; missing: string[] } | null>(null);
	const address = $derived(`/courses/${courseId}/quizzes/copy`);
	$effect(() => {
		if (!open) return;
		done = null;
		failure = '';
		void fetch(address, { headers: { Accept: 'application/json' } })
			.then((answer) => (answer.ok ? (answer.json() as Promise<typeof courses>) : []))
			.catch(() => [])
			.then((found) => (courses = found));
	});
	async function act() {
		if (done) return void (open = false);
		busy = true;
		const sent = await send<NonNullable<typeof done>>(address, { quizId: quiz!.id, courseId: Number(to) });
		busy = false;
		if (sent.ok) done = sent.value;
		else failure = sent.message;
	}
</script>

<Ask
	bind:open
	title="Copy “{quiz?.title ?? ''}” to another course"
	does={done ? 'Good' : 'Copy it'}
	ready={done !== null || to !== ''}
	{busy}
	{failure}
	{act}
>
	{#if done}
		<p>
			It is copied. <a class="word" href="/courses/{done.courseId}/quizzes/{done.quizId}">Open the copy</a>
		</p>
		{#if done.missing.length}<p class="doubtful">
				That course does not have {done.missing.length === 1 ? 'one thing' : `${done.missing.length} things`} that it draws
				from. The copy finds {done.missing.length === 1 ? 'it' : 'them'} as soon as {done.missing.length === 1
					? 'it comes'
					: 'they come'}:
			</p>
			<ul class="missing">
				{#each done.missing.slice(0, 100) as name (name)}<li>{name}</li>{/each}
			</ul>
		{:else}<p class="mute">All that it draws from was found there.</p>{/if}
	{:else}
		<label class="flex flex-col gap-1"
			>Course
			<select class="select" bind:value={to}
				><option value="">choose …</option>{#each courses as course (course.courseId)}<option
						value={String(course.courseId)}>{course.name}</option
					>{/each}</select
			></label
		>
		<p class="mute text-[13px]">
			Its pools are found there by the names of banks and the paths of categories, the questions that it names by what
			they say.
		</p>
	{/if}
</Ask>

<style>
	.missing {
		max-height: 200px;
		overflow: auto;
		list-style: disc inside;
	}
</style>
