<script lang="ts">
	import { count } from '$lib/ui/words';
	import Keys from './Keys.svelte';
	import Paper from './Paper.svelte';

	let { data } = $props();
	const address = (more: Record<string, string>) =>
		`?${new URLSearchParams({ forms: String(data.id), what: data.what, paper: data.paper, ...more }).toString()}`;
</script>

<svelte:head>
	<title>{data.title} · {data.what === 'keys' ? 'keys' : 'paper'} · Yarn Barrow</title>
</svelte:head>
<div class="sheet print" class:letter={data.paper === 'letter'}>
	<div class="acts">
		<h1>{data.title}</h1>
		<a class="word" href="/courses/{data.course.id}/quizzes/{data.quizId}">Back to the quiz</a>
		<a class="word" class:on={data.what === 'papers'} href={address({ what: 'papers' })}>The papers</a>
		<a class="word" class:on={data.what === 'keys'} href={address({ what: 'keys' })}>Keys and marking</a>
		<a class="word" class:on={data.paper === 'A4'} href={address({ paper: 'A4' })}>A4</a>
		<a class="word" class:on={data.paper === 'letter'} href={address({ paper: 'letter' })}>letter</a>
		<a class="word" href="/courses/{data.course.id}/quizzes/{data.quizId}/print/word{address({})}" download
			>as a Word document</a
		>
		<button type="button" class="btn btn-sm preset-filled-brand" onclick={() => print()}
			>Print {count(data.forms.length, 'form')}</button
		>
	</div>
	{#if data.gone}<p class="notice broken">
			{count(data.gone, 'question')} of these forms {data.gone === 1 ? 'is' : 'are'} gone from the bank and cannot be printed.
			Make the forms anew, or bring {data.gone === 1 ? 'it' : 'them'} back from the bin.
		</p>{/if}
	{#each data.forms as form (form.name)}
		{#if data.what === 'keys'}<Keys title={data.title} {form} />
		{:else}<Paper
				title={data.title}
				instructions={data.instructions}
				minutes={data.minutes}
				parts={data.parts}
				{form}
				courseId={data.course.id}
				several={data.forms.length > 1}
			/>{/if}
	{/each}
</div>

<style>
	.acts {
		display: flex;
		flex-wrap: wrap;
		gap: 16px;
		align-items: center;
		margin-bottom: 16px;
	}
	.acts h1 {
		margin-right: auto;
	}
	.on {
		font-weight: 700;
	}
	@page A4 {
		size: A4;
		margin: 16mm 16mm 18mm;
	}
	@page letter {
		size: letter;
		margin: 16mm 16mm 18mm;
	}
	.print {
		page: A4;
	}
	.print.letter {
		page: letter;
	}
	@media print {
		.acts,
		.notice {
			display: none;
		}
		.print {
			padding: 0;
		}
	}
</style>
