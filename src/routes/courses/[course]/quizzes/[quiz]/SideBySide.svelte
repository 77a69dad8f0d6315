<script lang="ts">
	import { seedAt } from '$core/draws/sheets/sitting';
	import type { NamedQuestion } from '$lib/server/quizzes/pool-page';
	import type { QuizSitting } from '$lib/server/quizzes/sittings';
	import { send } from '$lib/ui/doing';
	import { count } from '$lib/ui/words';
	import { onMount } from 'svelte';
	import type { Sheet } from './sheet.svelte';

	/** Sittings side by side, with what several share lit: ten from a seed on, or one for each student of a list. */
	let { sheet, seed, show }: { sheet: Sheet; seed: string; show: (seed: string) => void } = $props();

	const ten = 10;
	const mostStudents = 1000;
	/** So many columns are shown at once. */
	const mostColumns = 40;
	let students = $state('');
	let named = $state.raw<string[]>([]);
	let sittings = $state.raw<QuizSitting[]>([]);
	let names = $state.raw(new Map<number, NamedQuestion>());
	let failure = $state('');

	/** Names or numbers of students, the first column of each line. */
	const listed = $derived(
		[
			...new Set(
				students
					.split(/\r?\n/)
					.map((line) => (line.split(/[;,\t]/)[0] ?? '').trim().replace(/^"(.*)"$/, '$1'))
					.filter(Boolean)
			)
		].slice(0, mostStudents)
	);
	/** The seed of a student is made of the quiz and of what the student is called. */
	const seedOf = (student: string) => `quiz ${sheet.quiz.id} ${student}`.slice(0, 200);

	async function draw() {
		const seeds = listed.length ? listed.map(seedOf) : Array.from({ length: ten }, (_, at) => seedAt(seed, at));
		const answer = await sheet.draw(seeds);
		failure = answer.ok ? '' : answer.message;
		if (!answer.ok) return void (sittings = []);
		named = listed.length ? listed : seeds;
		const ids = [...new Set(answer.value.flatMap(({ parts }) => parts.flat()))];
		const found = await send<NamedQuestion[]>(`${sheet.address}/names`, ids);
		if (found.ok) names = new Map(found.value.map((question) => [question.id, question]));
		sittings = answer.value;
	}
	onMount(() => void draw());
	async function read(files: FileList | null) {
		const file = files?.[0];
		if (!file) return;
		students = await file.text();
		await draw();
	}
	/** By question, in how many of the sittings it is, the most frequent first. */
	const rowsOf = $derived.by(() => {
		const counts = new Map<number, number>();
		for (const { parts } of sittings) for (const id of parts.flat()) counts.set(id, (counts.get(id) ?? 0) + 1);
		return [...counts]
			.map(([id, sittingsWith]) => ({ id, sittingsWith }))
			.sort((a, b) => b.sittingsWith - a.sittingsWith || a.id - b.id);
	});
	const columns = $derived(sittings.slice(0, mostColumns).map(({ parts }) => new Set(parts.flat())));
	const sharedWithNext = $derived(
		columns.slice(1).map((column, at) => [...column].filter((id) => columns[at]!.has(id)).length)
	);
	const list = $derived(
		[
			'student,seed,points,questions',
			...sittings.map(({ seed: own, points, parts, order }, at) =>
				[named[at]!, own, points, order.flatMap((part) => parts[part]!).join(' ')]
					.map(
						(value) =>
							`"${String(value)
								.replaceAll('"', '""')
								.replace(/^[=+\-@]/, "'$&")}"`
					)
					.join(',')
			)
		].join('\r\n')
	);
</script>

<div class="mb-3 flex flex-wrap items-start gap-4">
	<label class="flex flex-col gap-1"
		><span class="mute">Students, a name or number a line; empty for ten from the seed {seed}</span>
		<textarea class="textarea w-80" rows="3" bind:value={students}></textarea></label
	>
	<div class="flex flex-col gap-2">
		<label class="mute text-[13px]"
			>or a list as CSV, its first column
			<input type="file" accept=".csv,.txt,text/csv" onchange={(event) => read(event.currentTarget.files)} /></label
		>
		<div class="flex gap-2">
			<button type="button" class="btn btn-sm preset-filled-brand" onclick={draw}
				>Draw {count(listed.length || ten, 'sitting')}</button
			>
			{#if sittings.length}<a
					class="btn btn-sm preset-outlined-brand"
					href="data:text/csv;charset=utf-8,{encodeURIComponent(list)}"
					download="{sheet.quiz.title.replace(/[^\p{L}\p{N}]+/gu, '-')}-sittings.csv">Who gets what, as CSV</a
				>{/if}
		</div>
	</div>
</div>
{#if failure}<p class="notice broken" role="alert">{failure}</p>{/if}
{#if sittings.length}
	<p class="mute mb-1">
		{count(rowsOf.length, 'different question')} in {count(sittings.length, 'sitting')}; neighbours share {sharedWithNext.length
			? `${Math.min(...sharedWithNext)} to ${Math.max(...sharedWithNext)}`
			: '–'}.{sittings.length > mostColumns ? ` The first ${mostColumns} are shown.` : ''}
	</p>
	<div class="overflow-x-auto">
		<table class="table">
			<thead
				><tr
					><th>Question</th><th class="number">in</th>{#each columns as _, at (at)}<th class="number"
							><button type="button" class="word" title="Show this sitting" onclick={() => show(sittings[at]!.seed)}
								>{named[at]}</button
							></th
						>{/each}</tr
				></thead
			>
			<tbody>
				{#each rowsOf.slice(0, 400) as { id, sittingsWith } (id)}<tr
						><td class="cut title" title={names.get(id)?.title}>{names.get(id)?.title ?? '…'}</td><td
							class="number mute">{sittingsWith}</td
						>{#each columns as column, at (at)}<td class="number" class:lit={column.has(id) && sittingsWith > 1}
								>{column.has(id) ? (sittingsWith > 1 ? '●' : '○') : ''}</td
							>{/each}</tr
					>{/each}
			</tbody>
			<tfoot
				><tr
					><td>points</td><td></td>{#each columns as _, at (at)}<td class="number">{sittings[at]!.points}</td
						>{/each}</tr
				></tfoot
			>
		</table>
	</div>
	<p class="mute text-[13px]">● in several of them, ○ in this one alone.</p>
{/if}

<style>
	.title {
		max-width: 260px;
	}
	.lit {
		background: var(--woad-soft);
	}
	button {
		cursor: pointer;
	}
</style>
