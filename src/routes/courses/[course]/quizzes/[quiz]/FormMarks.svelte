<script lang="ts">
	import type { Done } from '$lib/server/changes/deed';
	import type { FormMarks } from '$lib/server/quizzes/marks';
	import { send, tellDone } from '$lib/ui/doing';
	import { percentOf } from '$lib/ui/percent';
	import { count } from '$lib/ui/words';
	import type { Sheet } from './sheet.svelte';
	import { refresh } from '$lib/ui/refresh';

	/** Marks answers from paper against the forms of a quiz, and shows how each question did. */
	let { sheet, id, mayChange, courseId }: { sheet: Sheet; id: number; mayChange: boolean; courseId: number } = $props();

	let csv = $state('');
	let marks = $state.raw<FormMarks | null>(null);
	let failure = $state('');
	let busy = $state(false);
	async function mark() {
		busy = true;
		const sent = await send<FormMarks>(`${sheet.address}/forms/marks`, { id, csv });
		busy = false;
		failure = sent.ok ? '' : sent.message;
		marks = sent.ok ? sent.value : null;
	}
	async function read(files: FileList | null) {
		const file = files?.[0];
		if (!file) return;
		csv = await file.text();
		await mark();
	}
	async function writeBack() {
		const found = marks!.items.map((item) => ({ id: item.id, difficulty: 1 - Math.min(1, Math.max(0, item.ease)) }));
		const sent = await send<Done>(`${sheet.address}/forms/difficulty`, { found });
		if (sent.ok) tellDone(courseId, sent.value, refresh);
		else failure = sent.message;
	}
	const cell = (value: string | number) =>
		`"${String(value)
			.replaceAll('"', '""')
			.replace(/^[=+\-@]/, "'$&")}"`;
	const results = $derived(
		[
			'student,form,points,out of,still to mark',
			...(marks?.students ?? []).map((paper) =>
				[paper.student, paper.form, paper.points, paper.outOf, paper.open].map(cell).join(',')
			)
		].join('\r\n')
	);
	const told = (value: number | null) => (value === null ? '–' : (Math.round(value * 100) / 100).toFixed(2));
</script>

<section class="mt-4">
	<h2>Answers from paper</h2>
	<p class="mute">
		A line for each student: name, form, and the answers in the order of the paper, as letters (B, AC, 1C 2A), numbers
		or words; a share as 80 % is what a person gave.
	</p>
	<div class="mt-2 flex flex-wrap items-start gap-4">
		<textarea
			class="textarea min-w-0 flex-1"
			rows="5"
			aria-label="Answers, a line for each student"
			bind:value={csv}
			placeholder="name, form, answers"></textarea>
		<div class="flex flex-col gap-2">
			<label class="mute text-[13px]"
				>or as a file (CSV)
				<input type="file" accept=".csv,.txt,text/csv" onchange={(event) => read(event.currentTarget.files)} /></label
			>
			<button type="button" class="btn btn-sm preset-filled-brand" disabled={busy || !csv.trim()} onclick={mark}
				>Mark them</button
			>
		</div>
	</div>
	{#if failure}<p class="notice broken" role="alert">{failure}</p>{/if}
	{#if marks}
		{#if marks.faults.length}<p class="broken mt-2">
				{count(marks.faults.length, 'thing')} could not be read and {marks.faults.length === 1 ? 'counts' : 'count'} nothing
				yet:
			</p>
			<ul class="text-[13px]">
				{#each marks.faults.slice(0, 40) as fault, at (at)}<li>
						Line {fault.line}{fault.number === null ? '' : `, question ${fault.number}`}: {fault.message}
					</li>{/each}
			</ul>{/if}
		<div class="two">
			<div class="min-w-0">
				<h3>
					{count(marks.students.length, 'paper')}
					<a
						class="word text-[13px] font-normal"
						href="data:text/csv;charset=utf-8,{encodeURIComponent(results)}"
						download="{sheet.quiz.title.replace(/[^\p{L}\p{N}]+/gu, '-')}-results.csv">as CSV</a
					>
				</h3>
				<table class="table">
					<thead
						><tr><th>Student</th><th>Form</th><th class="number">points</th><th class="number">share</th></tr></thead
					>
					<tbody>
						{#each marks.students as paper, at (at)}<tr
								><td class="cut">{paper.student}</td><td>{paper.form}</td><td class="number"
									>{Math.round(paper.points * 100) / 100} of {Math.round(paper.outOf * 100) / 100}{#if paper.open}<span
											class="doubtful block text-[12.5px]">{paper.open} to mark</span
										>{/if}</td
								><td class="number">{percentOf(paper.outOf ? paper.points / paper.outOf : 0)}</td></tr
							>{/each}
					</tbody>
				</table>
			</div>
			<div class="min-w-0">
				<h3>
					{count(marks.items.length, 'question')}
					{#if mayChange && marks.items.length}<button
							type="button"
							class="word text-[13px] font-normal"
							onclick={writeBack}>Write their difficulty into the bank</button
						>{/if}
				</h3>
				<table class="table">
					<thead
						><tr
							><th>Question</th><th class="number">papers</th><th class="number" title="The mean share of its points"
								>ease</th
							><th
								class="number"
								title="How its credit goes along with the rest of the paper: below 0.2 it hardly tells the strong from the weak"
								>tells apart</th
							><th>Options</th></tr
						></thead
					>
					<tbody>
						{#each marks.items as item (item.id)}<tr
								><td class="cut" title={item.title}>{item.title}</td><td class="number">{item.papers}</td><td
									class="number">{percentOf(item.ease)}</td
								><td class="number" class:doubtful={item.discrimination !== null && item.discrimination < 0.2}
									>{told(item.discrimination)}</td
								><td class="text-[13px]"
									>{#each item.options as option (option.letter)}<span class="option" class:font-bold={option.isRight}
											>{option.letter}{option.isRight ? '*' : ''} {option.count}</span
										>{/each}</td
								></tr
							>{/each}
					</tbody>
				</table>
				<p class="mute text-[13px]">Options are lettered as in the bank; * earns something.</p>
			</div>
		</div>
	{/if}
</section>

<style>
	.two {
		display: grid;
		grid-template-columns: minmax(0, 1fr) minmax(0, 2fr);
		gap: 24px;
		margin-top: 12px;
	}
	.cut {
		max-width: 170px;
	}
	.option {
		margin-right: 10px;
		white-space: nowrap;
	}
	button {
		cursor: pointer;
	}
</style>
