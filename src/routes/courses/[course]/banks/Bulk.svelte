<script lang="ts">
	import type { BulkPreview } from '$lib/server/changes/bulk';
	import { goto } from '$app/navigation';
	import Ask from '$lib/ui/Ask.svelte';
	import Choices from '$lib/ui/Choices.svelte';
	import WordChanges from '$lib/ui/WordChanges.svelte';
	import { send } from '$lib/ui/doing';
	import { latest } from '$lib/ui/latest';
	import { tell } from '$lib/ui/toasts';
	import { count, figure } from '$lib/ui/words';
	import type { BankView } from './bank.svelte';
	import { bulkSheets, edit, nothingFilled, type BulkDeed } from './bulk-sheets';
	import BulkFields from './BulkFields.svelte';

	/** What can be done with the questions that are selected: each is told in numbers before it is done. */
	let { view }: { view: BankView } = $props();

	const more = [
		{ value: 'shuffleOn', name: 'Shuffle options' },
		{ value: 'shuffleOff', name: 'Keep options as they stand' },
		{ value: 'pin', name: 'Pin the last option' },
		{ value: 'unpin', name: 'Let all options go' },
		{ value: 'difficulty', name: 'Difficulty …' },
		{ value: 'language', name: 'Language …' },
		{ value: 'replace', name: 'Replace words …' },
		{ value: 'machine', name: 'Written by a machine' },
		{ value: 'person', name: 'Written by a person' },
		{ value: 'unverified', name: 'Key not verified' },
		{ value: 'disputed', name: 'Doubt the key …' },
		{ value: 'quiz', name: 'Put these in a quiz …' },
		{ value: 'dispatch', name: 'Dispatch these' }
	] as const;

	let deed = $state<BulkDeed | null>(null);
	let open = $state(false);
	let filled = $state(nothingFilled());
	let preview = $state<BulkPreview | null>(null);
	let fault = $state('');

	const { selected } = $derived(view.selection);
	/** What is asked of the server, or null while something is missing. */
	const asked = $derived(deed && selected ? bulkSheets[deed].asked(filled, view.chosen) : null);
	const ask = latest(async (body: unknown) =>
		send<BulkPreview>(`/courses/${view.courseId}/banks/bulk?preview=1`, body)
	);
	let timer: ReturnType<typeof setTimeout> | undefined;
	$effect(() => {
		const body = open ? asked : null;
		preview = null;
		fault = '';
		clearTimeout(timer);
		if (!body) return;
		timer = setTimeout(async () => {
			const sent = await ask(body);
			if (!sent) return;
			if (sent.ok) preview = sent.value;
			else fault = sent.message;
		}, 200);
	});

	function begin(what: BulkDeed) {
		deed = what;
		filled = nothingFilled();
		view.failure = '';
		open = true;
	}
	const atOnce = (what: object) => view.actAtOnce('bulk', what);
	function choose(value: string) {
		if (value === 'shuffleOn' || value === 'shuffleOff')
			void atOnce(edit(view.chosen, { edit: 'shuffle', on: value === 'shuffleOn' }));
		else if (value === 'pin' || value === 'unpin')
			void atOnce(edit(view.chosen, { edit: 'pin', which: value === 'pin' ? 'last' : 'none' }));
		else if (value === 'machine' || value === 'person')
			void atOnce({ do: 'machine', chosen: view.chosen, on: value === 'machine' ? 'yes' : 'no' });
		else if (value === 'unverified') void atOnce({ do: 'key', chosen: view.chosen, state: 'unverified' });
		else if (value === 'dispatch') void dispatchThese();
		else begin(value as BulkDeed);
	}
	async function dispatchThese() {
		const sent = await send<{ selectionId: number }>(`/courses/${view.courseId}/banks/dispatch`, {
			chosen: view.chosen
		});
		if (sent.ok) await goto(`/courses/${view.courseId}/dispatch?selection=${sent.value.selectionId}`);
		else tell(sent.message);
	}
	async function putInQuiz() {
		const [quizId, part] = filled.quiz.split(' ').map(Number);
		const sent = await send<{ quizId: number }>(`/courses/${view.courseId}/banks/quiz`, {
			chosen: view.chosen,
			...(filled.quiz ? { quizId, part: part! < 0 ? null : part } : { title: filled.text })
		});
		if (sent.ok) await goto(`/courses/${view.courseId}/quizzes/${sent.value.quizId}`);
		else view.failure = sent.message;
	}
	async function act() {
		if (deed === 'quiz') return putInQuiz();
		const leaves = deed === 'move';
		if (!(await view.act('bulk', asked))) return;
		open = false;
		if (leaves) view.selection.clear();
	}
	const does = $derived(
		deed === 'quiz'
			? `${filled.quiz ? 'Add' : 'Make a quiz of'} ${count(selected, 'question')}`
			: preview
				? `Change ${count(preview.changes, 'question')}`
				: 'Change'
	);
</script>

<div class="filters bulk" role="group" aria-label="With what is selected">
	<b>{figure(selected)} selected</b>
	<button class="btn btn-sm preset-outlined-brand" type="button" onclick={() => begin('move')}>Move …</button>
	<button class="btn btn-sm preset-outlined-brand" type="button" onclick={() => begin('copy')}>Copy …</button>
	<button class="btn btn-sm preset-outlined-brand" type="button" onclick={() => begin('tags')}>Tags …</button>
	<button class="btn btn-sm preset-outlined-brand" type="button" onclick={() => begin('points')}>Points …</button>
	<button
		class="btn btn-sm preset-outlined-brand"
		type="button"
		disabled={view.busy}
		onclick={() => atOnce({ do: 'key', chosen: view.chosen, state: 'verified' })}>Key verified</button
	>
	<Choices name="More" label="More to do with what is selected" choices={more} {choose} />
	<button
		class="btn btn-sm preset-outlined-brand"
		type="button"
		disabled={view.busy}
		onclick={async () => {
			if (await atOnce({ do: 'bin', chosen: view.chosen })) view.selection.clear();
		}}>To the bin</button
	>
	<button class="word ml-auto text-[13px]" type="button" onclick={() => view.selection.clear()}>none</button>
</div>

{#if deed}
	<Ask
		bind:open
		title="{bulkSheets[deed].title} {count(selected, 'question')}"
		{does}
		ready={deed === 'quiz' ? filled.quiz !== '' || !!filled.text.trim() : preview !== null && preview.changes > 0}
		busy={view.busy}
		failure={view.failure || fault}
		wide={deed === 'replace'}
		{act}
	>
		<BulkFields {deed} bind:filled courseId={view.courseId} />
		{#if preview}
			<p role="status">
				{preview.words}
				{#if preview.changes < preview.chosen}{figure(preview.chosen - preview.changes)} of {figure(preview.chosen)}
					{preview.chosen - preview.changes === 1 ? 'needs' : 'need'}
					no change.{/if}
				{#if deed === 'move' && preview.inQuizzes}{count(preview.inQuizzes, 'question')} of them stand in quizzes.{/if}
			</p>
			{#if deed === 'replace'}
				<div class="examples">
					{#each preview.examples as example (example.id)}
						<h3>{example.before.title}</h3>
						<WordChanges before={example.before} after={example.after} />
					{/each}
				</div>
			{/if}
		{/if}
	</Ask>
{/if}

<style>
	.bulk {
		flex-wrap: wrap;
		row-gap: 4px;
		padding-block: 6px;
		background: var(--woad-soft);
	}
	.examples {
		max-height: 300px;
		overflow: auto;
		display: flex;
		flex-direction: column;
		gap: 8px;
		border-top: 1px solid var(--line);
		padding-top: 8px;
	}
</style>
