<script lang="ts">
	import { beforeNavigate } from '$app/navigation';
	import Columns from '$lib/ui/Columns.svelte';
	import { isTyping } from '$lib/ui/keys';
	import Tabs from '$lib/ui/Tabs.svelte';
	import { dateTime } from '$lib/ui/words';
	import Redo2 from '@lucide/svelte/icons/redo-2';
	import Undo2 from '@lucide/svelte/icons/undo-2';
	import { onMount, untrack } from 'svelte';
	import Around from './Around.svelte';
	import { throwAway } from '../throw-away';
	import DrawSheet from './DrawSheet.svelte';
	import Forms from './Forms.svelte';
	import { Sheet } from './sheet.svelte';
	import Sitting from './Sitting.svelte';
	import WhatStudentsGet from './WhatStudentsGet.svelte';
	import WholeQuiz from './WholeQuiz.svelte';

	let { data } = $props();

	const sheet = untrack(
		() => new Sheet(`/courses/${data.course.id}/quizzes/${data.quiz.id}`, data.quiz, data.tree, data.look)
	);
	let tab = $state<'sheet' | 'rules' | 'sitting' | 'forms' | 'around'>('sheet');
	let seed = $state('harbour-1');
	onMount(() => sheet.begin());
	$effect(() => {
		sheet.changed(data.mayChange);
	});
	beforeNavigate(() => {
		if (sheet.saved === 'not saved yet') void sheet.save();
	});
	function undoByKey(event: KeyboardEvent) {
		if (!(event.ctrlKey || event.metaKey) || isTyping(event)) return;
		const key = event.key.toLowerCase();
		if (key !== 'z' && key !== 'y') return;
		event.preventDefault();
		if (key === 'y' || event.shiftKey) sheet.redo();
		else sheet.undo();
	}
	const day = (moment: string) => dateTime(moment).split(',')[0]!;
	const around = $derived.by(() => {
		const { minutes, attempts, opens } = sheet.quiz.settings;
		return [
			...(minutes ? [`${minutes} min`] : []),
			...(attempts ? [`${attempts} ${attempts === 1 ? 'attempt' : 'attempts'}`] : []),
			...(opens ? [`opens ${day(opens)}`] : [])
		].join(' · ');
	});
</script>

<svelte:window onkeydown={undoByKey} />
<svelte:head><title>{sheet.quiz.title} · Quizzes · Yarn Barrow</title></svelte:head>
<Columns name="quiz" widths={[264, 400]} middleLabel="The quiz" lastLabel="What students get" list={false}>
	{#snippet middle()}
		<div class="mb-2 flex flex-wrap items-center gap-x-3 gap-y-1">
			<h1 class="visually-hidden">{sheet.quiz.title}</h1>
			<input
				class="title heading"
				aria-label="Title of the quiz"
				bind:value={sheet.quiz.title}
				maxlength="255"
				disabled={!data.mayChange}
			/>
			<span class="mute text-[13px] whitespace-nowrap" role="status"
				>{sheet.quiz.state}{sheet.saved ? `, ${sheet.saved}` : ''}</span
			>
			{#if data.mayChange}<span class="flex"
					><button type="button" class="icon" aria-label="Undo" disabled={!sheet.canUndo} onclick={() => sheet.undo()}
						><Undo2 size={16} /></button
					><button type="button" class="icon" aria-label="Redo" disabled={!sheet.canRedo} onclick={() => sheet.redo()}
						><Redo2 size={16} /></button
					></span
				>{/if}
			{#if around}<button
					type="button"
					class="mute ml-auto text-[13px] whitespace-nowrap underline"
					onclick={() => (tab = 'around')}>{around}</button
				>{/if}
			<a
				class="btn btn-sm preset-outlined-brand"
				class:ml-auto={!around}
				href="/courses/{data.course.id}/dispatch?quiz={sheet.quiz.id}">Dispatch it</a
			>
		</div>
		{#if sheet.failure}<p class="notice broken" role="alert">{sheet.failure}</p>{/if}
		<Tabs
			tabs={[
				{ value: 'sheet', name: 'Draw sheet' },
				{ value: 'rules', name: 'Pairs and groups' },
				{ value: 'sitting', name: 'A sitting' },
				{ value: 'forms', name: 'Forms' },
				{ value: 'around', name: 'Around it' }
			]}
			bind:value={tab}
			label="The quiz"
		>
			{#snippet panel(shown)}
				{#if shown === 'sheet'}<DrawSheet {sheet} mayChange={data.mayChange} courseId={data.course.id} />
				{:else if shown === 'rules'}<WholeQuiz {sheet} mayChange={data.mayChange} courseId={data.course.id} />
				{:else if shown === 'sitting'}<Sitting {sheet} bind:seed courseId={data.course.id} />
				{:else if shown === 'forms'}<Forms {sheet} mayChange={data.mayChange} courseId={data.course.id} />
				{:else}<Around {sheet} mayChange={data.mayChange} />
					{#if data.mayChange}<button
							type="button"
							class="btn btn-sm preset-outlined-brand mt-10"
							onclick={() => void throwAway(data.course.id, { id: data.quiz.id, title: sheet.quiz.title })}
							>Throw this quiz away</button
						>{/if}{/if}
			{/snippet}
		</Tabs>
	{/snippet}
	{#snippet last()}<WhatStudentsGet {sheet} mayChange={data.mayChange} courseId={data.course.id} />{/snippet}
</Columns>

<style>
	.title {
		font-size: 22px;
		background: transparent;
		border-bottom: 1px dashed var(--line2);
		min-width: 180px;
		flex: 0 1 380px;
	}
	.icon {
		cursor: pointer;
		padding: 4px;
		min-width: 26px;
		min-height: 26px;
		color: var(--ink2);
	}
	.icon:disabled {
		opacity: 0.3;
	}
	button {
		cursor: pointer;
	}
</style>
