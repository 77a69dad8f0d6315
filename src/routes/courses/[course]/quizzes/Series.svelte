<script lang="ts">
	import type { CategoryNode } from '$lib/server/banks/tree';
	import type { QuizRow } from '$lib/server/quizzes/quizzes';
	import Ask from '$lib/ui/Ask.svelte';
	import DateField from '$lib/ui/DateField.svelte';
	import { send } from '$lib/ui/doing';
	import PickCategories from './PickCategories.svelte';
	import NumberField from '$lib/ui/NumberField.svelte';
	import { tell } from '$lib/ui/toasts';
	import Toggle from '$lib/ui/Toggle.svelte';
	import { count } from '$lib/ui/words';
	import { refresh } from '$lib/ui/refresh';

	/** Makes a series: one quiz for each of some categories, by one sheet, dated one after the other. */
	let { courseId, quizzes, open = $bindable() }: { courseId: number; quizzes: QuizRow[]; open: boolean } = $props();

	let tree = $state.raw<CategoryNode[]>([]);
	let chosen = $state<number[]>([]);
	let after = $state('');
	let draw = $state<number | null>(10);
	let pointsEach = $state<number | null>(null);
	let shuffleOptions = $state(true);
	let title = $state('Week {n}: {category}');
	let opens = $state<string | null>(null);
	let everyDays = $state<number | null>(7);
	let dueAfter = $state<number | null>(7);
	let busy = $state(false);
	let failure = $state('');
	const address = $derived(`/courses/${courseId}/quizzes/series`);
	/** The first level of a bank that has several categories: those that a series is made over most often. */
	function firstLevel(all: readonly CategoryNode[]): number[] {
		const bank = all.find(({ id }) => id < 0);
		let level = all.filter(({ parentId }) => parentId === bank?.id);
		while (level.length === 1) {
			const [only] = level;
			const under = all.filter(({ parentId }) => parentId === only!.id);
			if (!under.length) break;
			level = under;
		}
		return level.map(({ id }) => id);
	}
	$effect(() => {
		if (!open) return;
		failure = '';
		void fetch(address, { headers: { Accept: 'application/json' } })
			.then((answer) => (answer.ok ? (answer.json() as Promise<CategoryNode[]>) : []))
			.catch(() => [])
			.then((found) => {
				tree = found;
				chosen = firstLevel(found);
			});
	});
	const first = $derived(tree.find(({ id }) => chosen.includes(id)));
	const example = $derived(title.replaceAll('{n}', '1').replaceAll('{category}', first?.name ?? 'Category'));
	const short = $derived(
		after === '' && draw !== null ? tree.filter(({ id, all }) => chosen.includes(id) && all < draw!) : []
	);
	async function act() {
		busy = true;
		const sent = await send<{ quizIds: number[] }>(address, {
			categories: chosen,
			quizId: after === '' ? null : Number(after),
			draw,
			pointsEach,
			shuffleOptions,
			title,
			opens,
			everyDays,
			dueAfter: opens ? dueAfter : null
		});
		busy = false;
		if (!sent.ok) return void (failure = sent.message);
		open = false;
		await refresh();
		tell(`${count(sent.value.quizIds.length, 'quiz is', 'quizzes are')} made.`);
	}
</script>

<Ask
	bind:open
	title="Make a series"
	does="Make {count(chosen.length, 'quiz', 'quizzes')}"
	ready={chosen.length > 0 && title.trim() !== '' && everyDays !== null}
	{busy}
	{failure}
	{act}
	wide
>
	<div class="two">
		<div class="min-w-0">
			<p class="mute mb-1">One quiz for each of these, with what is under it</p>
			{#if tree.length}<PickCategories {tree} bind:chosen holds={({ all }) => all} label="Quizzes over" />{/if}
		</div>
		<div class="flex min-w-0 flex-col gap-2">
			<label class="flex flex-col gap-1"
				>Called <input class="input" maxlength="200" bind:value={title} /><span class="mute text-[13px]"
					>as “{example}”</span
				></label
			>
			<label class="flex flex-col gap-1"
				>By the sheet of
				<select class="select" bind:value={after}
					><option value="">a plain one</option>{#each quizzes as quiz (quiz.id)}<option value={String(quiz.id)}
							>{quiz.title}</option
						>{/each}</select
				></label
			>
			{#if after === ''}
				<div class="flex flex-wrap items-center gap-2">
					draw <NumberField
						label="How many each quiz draws"
						placeholder="all"
						whole
						least={1}
						most={10000}
						bind:value={draw}
					/>
					at <NumberField label="Points for each question" placeholder="its own" width="72px" bind:value={pointsEach} /> points
				</div>
				<Toggle bind:on={shuffleOptions} label="shuffle the options" />
			{:else}<p class="mute text-[13px]">
					What it lists by name it lists in each; what it draws, it draws from the category of each.
				</p>{/if}
			<div class="flex flex-col gap-1">
				<span>The first opens</span>
				<DateField label="The first opens" timed time="08:00" bind:value={opens} />
			</div>
			{#if opens}
				<div class="flex flex-wrap items-center gap-2">
					the next each <NumberField
						label="Days from one to the next"
						whole
						least={1}
						most={366}
						required
						bind:value={everyDays}
					/> days later, due after <NumberField
						label="Days until it is due"
						placeholder="–"
						whole
						most={366}
						bind:value={dueAfter}
					/> days
				</div>
			{/if}
			{#if short.length}<p class="doubtful text-[13px]">
					{count(short.length, 'category has', 'categories have')} fewer than {draw}: {short
						.map(({ name }) => name)
						.join(', ')}.
				</p>{/if}
		</div>
	</div>
</Ask>

<style>
	.two {
		display: grid;
		grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
		gap: 20px;
	}
</style>
