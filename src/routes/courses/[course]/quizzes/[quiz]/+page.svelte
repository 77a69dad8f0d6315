<script lang="ts">
	import { enhance } from '$app/forms';
	import { beforeNavigate } from '$app/navigation';
	import Columns from '$lib/ui/Columns.svelte';
	import Tabs from '$lib/ui/Tabs.svelte';
	import { onMount, untrack } from 'svelte';
	import DrawSheet from './DrawSheet.svelte';
	import PartPool from './PartPool.svelte';
	import { Sheet } from './sheet.svelte';
	import Sitting from './Sitting.svelte';

	let { data } = $props();

	const sheet = untrack(() => new Sheet(`/courses/${data.course.id}/quizzes/${data.quiz.id}`, data.quiz, data.source));
	let tab = $state<'sheet' | 'sitting'>('sheet');
	let seed = $state('harbour-1');
	onMount(() => sheet.begin());
	$effect(() => {
		sheet.changed(data.mayChange);
	});
	$effect(() => void sheet.fetchPools(sheet.absent));
	beforeNavigate(() => {
		if (sheet.saved === 'not saved yet') void sheet.save();
	});
</script>

<svelte:head><title>{sheet.quiz.title} · Quizzes · Yarn Barrow</title></svelte:head>
<Columns name="quiz" widths={[264, 380]} middleLabel="The quiz" lastLabel="The part" list={false}>
	{#snippet middle()}
		<div class="mb-2 flex items-center gap-3">
			<h1 class="visually-hidden">{sheet.quiz.title}</h1>
			<input
				class="title heading"
				aria-label="Title of the quiz"
				bind:value={sheet.quiz.title}
				disabled={!data.mayChange}
			/>
			<span class="mute text-[13px]" role="status">{sheet.saved}</span>
			<a class="btn btn-sm preset-outlined-brand ml-auto" href="/courses/{data.course.id}/dispatch?quiz={sheet.quiz.id}"
				>Dispatch it</a
			>
		</div>
		{#if sheet.failure}<p class="notice broken" role="alert">{sheet.failure}</p>{/if}
		<Tabs
			tabs={[
				{ value: 'sheet', name: 'Draw sheet' },
				{ value: 'sitting', name: 'A sitting' }
			]}
			bind:value={tab}
			label="The quiz"
		>
			{#snippet panel(shown)}
				{#if shown === 'sheet'}<DrawSheet {sheet} mayChange={data.mayChange} />
				{:else}<Sitting {sheet} bind:seed courseId={data.course.id} />{/if}
			{/snippet}
		</Tabs>
	{/snippet}
	{#snippet last()}
		{#if sheet.part}
			{#key sheet.chosen}<PartPool
					part={sheet.part}
					pool={sheet.pools[sheet.chosen]!}
					tree={data.source.tree}
					mayChange={data.mayChange}
				/>{/key}
		{:else}<p class="mute">Add a part, and choose here what it draws from.</p>{/if}
		{#if data.mayChange}<form method="POST" action="?/drop" use:enhance class="mt-10">
				<button class="btn btn-sm preset-outlined-brand">Throw this quiz away</button>
			</form>{/if}
	{/snippet}
</Columns>

<style>
	.title {
		font-size: 22px;
		background: transparent;
		border-bottom: 1px dashed var(--line2);
		min-width: 0;
		flex: 0 1 420px;
	}
</style>
