<script lang="ts">
	/** Where chosen questions go: a new quiz by its title, or a part of one that is there. */
	let {
		courseId,
		into = $bindable(),
		title = $bindable()
	}: { courseId: number; into: string; title: string } = $props();

	interface QuizToFill {
		id: number;
		title: string;
		parts: { at: number; title: string; questions: number }[];
	}
	let quizzes = $state.raw<QuizToFill[]>([]);
	$effect(() => {
		void fetch(`/courses/${courseId}/banks/quiz`, { headers: { Accept: 'application/json' } })
			.then((answer) => (answer.ok ? (answer.json() as Promise<QuizToFill[]>) : []))
			.catch(() => [])
			.then((found) => (quizzes = found));
	});
</script>

<label class="flex flex-col gap-1"
	>Into
	<select class="select" bind:value={into}
		><option value="">a new quiz</option>{#each quizzes as quiz (quiz.id)}<optgroup label={quiz.title}
				>{#each quiz.parts as part (part.at)}<option value="{quiz.id} {part.at}"
						>{part.title}, behind its {part.questions}</option
					>{/each}<option value="{quiz.id} -1">a new part of {quiz.title}</option></optgroup
			>{/each}</select
	></label
>
{#if into === ''}<label class="flex flex-col gap-1"
		>Title of the quiz <input class="input" maxlength="255" bind:value={title} data-begin /></label
	>{/if}
