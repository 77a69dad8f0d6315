<script lang="ts">
	import { enhance } from '$app/forms';
	import { dateTime, count } from '$lib/ui/words';
	import Gather from './Gather.svelte';
	import { SvelteSet } from 'svelte/reactivity';
	let { data, form } = $props();
	const chosen = new SvelteSet<number>();
	let gathering = $state(false);
</script>

<svelte:head><title>Quizzes · {data.course.name} · Yarn Barrow</title></svelte:head>
<div class="sheet">
	<div class="mb-3 flex items-center justify-between gap-4">
		<h1>Quizzes</h1>
		{#if data.mayChange && chosen.size}<button
				type="button"
				class="btn btn-sm preset-outlined-brand ml-auto"
				onclick={() => (gathering = true)}>Gather the questions of {count(chosen.size, 'quiz', 'quizzes')} …</button
			>{/if}
		{#if data.mayChange}
			<form method="POST" action="?/make" use:enhance class="flex gap-2">
				<input
					class="input w-64"
					name="title"
					aria-label="Title of the new quiz"
					placeholder="title of the new quiz"
					required
					maxlength="255"
				/><button class="btn btn-sm preset-filled-brand">Make a quiz</button>
			</form>
		{/if}
	</div>
	{#if form?.message}<p class="notice broken" role="alert">{form.message}</p>{/if}
	<table class="table">
		<thead
			><tr
				>{#if data.mayChange}<th class="w-8"><span class="visually-hidden">Select</span></th>{/if}<th>Quiz</th><th
					>State</th
				><th class="number">Parts</th><th>Changed</th></tr
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
					><td class="number" title={count(quiz.parts, 'part')}>{quiz.parts}</td><td class="mute"
						>{dateTime(quiz.changed)}</td
					></tr
				>
			{:else}<tr
					><td colspan="5" class="mute py-6"
						>No quiz yet. A quiz has parts; each part draws so many questions from the categories you choose.</td
					></tr
				>{/each}
		</tbody>
	</table>
</div>
<Gather courseId={data.course.id} quizzes={[...chosen]} banks={data.banks} bind:open={gathering} />
