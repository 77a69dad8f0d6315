<script lang="ts">
	import { goto } from '$app/navigation';
	import type { QuizRow } from '$lib/server/quizzes/quizzes';
	import { newQuiz } from '$lib/forms/quiz';
	import Choices from '$lib/ui/Choices.svelte';
	import { send } from '$lib/ui/doing';
	import Field from '$lib/ui/Field.svelte';
	import Form from '$lib/ui/Form.svelte';
	import { tell } from '$lib/ui/toasts';
	import { count, dateTime } from '$lib/ui/words';
	import { SvelteSet } from 'svelte/reactivity';
	import CopyTo from './CopyTo.svelte';
	import Gather from './Gather.svelte';
	import Series from './Series.svelte';
	import { throwAway } from './throw-away';

	let { data, form } = $props();
	const chosen = new SvelteSet<number>();
	let gathering = $state(false);
	let serial = $state(false);
	let copying = $state(false);
	let subject = $state<QuizRow | null>(null);

	const choices = [
		{ value: 'copy', name: 'Copy it' },
		{ value: 'copyTo', name: 'Copy it to another course …' },
		{ value: 'drop', name: 'Throw it away' }
	];
	async function act(value: string, quiz: QuizRow) {
		if (value === 'drop') return throwAway(data.course.id, quiz);
		if (value === 'copyTo') {
			subject = quiz;
			copying = true;
			return;
		}
		const sent = await send<{ quizId: number }>(`/courses/${data.course.id}/quizzes/copy`, { quizId: quiz.id });
		if (sent.ok) await goto(`/courses/${data.course.id}/quizzes/${sent.value.quizId}`);
		else tell(sent.message);
	}
</script>

<svelte:head><title>Quizzes · {data.course.name} · Yarn Barrow</title></svelte:head>
<div class="sheet">
	<div class="mb-3 flex flex-wrap items-start gap-2">
		<h1>Quizzes</h1>
		{#if data.mayChange && chosen.size}<button
				type="button"
				class="btn btn-sm preset-outlined-brand ml-6"
				onclick={() => (gathering = true)}>Gather the questions of {count(chosen.size, 'quiz', 'quizzes')} …</button
			>{/if}
		{#if data.mayChange}
			<button type="button" class="btn btn-sm preset-outlined-brand ml-auto" onclick={() => (serial = true)}
				>Make a series …</button
			>
			<Form schema={newQuiz} action="?/make" name="make" answer={form} class="flex items-start gap-2">
				<Field
					label="Title of the new quiz"
					name="title"
					placeholder="title of the new quiz"
					width="256px"
					required
				/><button class="btn btn-sm preset-filled-brand">Make a quiz</button>
			</Form>
		{/if}
	</div>
	<table class="table">
		<thead
			><tr
				>{#if data.mayChange}<th class="w-8"><span class="visually-hidden">Select</span></th>{/if}<th>Quiz</th><th
					>State</th
				><th class="number">Parts</th><th class="number">Draws</th><th>Opens</th><th>Due</th><th>Changed</th
				>{#if data.mayChange}<th class="w-24"><span class="visually-hidden">Do</span></th>{/if}</tr
			></thead
		>
		<tbody>
			{#each data.quizzes as quiz (quiz.id)}
				<tr
					>{#if data.mayChange}<td
							><input
								type="checkbox"
								class="checkbox"
								aria-label="Select {quiz.title}"
								checked={chosen.has(quiz.id)}
								onchange={(event) => (event.currentTarget.checked ? chosen.add(quiz.id) : chosen.delete(quiz.id))}
							/></td
						>{/if}<td><a class="word" href="/courses/{data.course.id}/quizzes/{quiz.id}"><b>{quiz.title}</b></a></td><td
						class="mute">{quiz.state}</td
					><td class="number" title={count(quiz.parts, 'part')}>{quiz.parts}</td><td
						class="number"
						title="How many questions a student gets, where each part says so">{quiz.draws ?? 'all'}</td
					><td class="mute">{quiz.opens ? dateTime(quiz.opens) : '–'}</td><td class="mute"
						>{quiz.due ? dateTime(quiz.due) : '–'}</td
					><td class="mute">{dateTime(quiz.changed)}</td>{#if data.mayChange}<td class="number"
							><Choices
								name="Do"
								label="What to do with {quiz.title}"
								{choices}
								choose={(value) => void act(value, quiz)}
							/></td
						>{/if}</tr
				>
			{:else}<tr
					><td colspan="9" class="mute py-6"
						>No quiz yet. A quiz has parts; each part lists questions, or draws so many from the categories you choose.
						A series makes one quiz for each chapter at once.</td
					></tr
				>{/each}
		</tbody>
	</table>
</div>
<Gather courseId={data.course.id} quizzes={[...chosen]} banks={data.banks} bind:open={gathering} />
<Series courseId={data.course.id} quizzes={data.quizzes} bind:open={serial} />
<CopyTo courseId={data.course.id} quiz={subject} bind:open={copying} />
