<script lang="ts">
	import type { BulkPreview } from '$lib/server/changes/bulk';
	import { goto } from '$app/navigation';
	import Ask from '$lib/ui/Ask.svelte';
	import QuizChoice from './QuizChoice.svelte';
	import Choices from '$lib/ui/Choices.svelte';
	import PlaceChoice from '$lib/ui/PlaceChoice.svelte';
	import WordChanges from '$lib/ui/WordChanges.svelte';
	import { typedNumber } from '$lib/forms/typed-number';
	import { send } from '$lib/ui/doing';
	import TagsField from '$lib/ui/TagsField.svelte';
	import { latest } from '$lib/ui/latest';
	import { tell } from '$lib/ui/toasts';
	import { count, figure } from '$lib/ui/words';
	import type { BankView } from './bank.svelte';

	/** What can be done with the questions that are selected: each is told in numbers before it is done. */
	let { view }: { view: BankView } = $props();

	type Deed =
		| 'move'
		| 'copy'
		| 'points'
		| 'tags'
		| 'shuffle'
		| 'pin'
		| 'difficulty'
		| 'language'
		| 'replace'
		| 'disputed'
		| 'quiz';
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

	let deed = $state<Deed | null>(null);
	let open = $state(false);
	let text = $state('');
	let into = $state('');
	let put = $state('');
	let added = $state<string[]>([]);
	let taken = $state<string[]>([]);
	let exactCase = $state(false);
	let wholeWords = $state(true);
	let toBank = $state<number | null>(null);
	let toCategory = $state<number | null>(null);
	let preview = $state<BulkPreview | null>(null);
	let fault = $state('');

	const { selected } = $derived(view.selection);
	const edit = (what: object) => ({ do: 'edit', chosen: view.chosen, what });
	const wrong = $derived(
		deed === 'points' && text.trim() && Number.isNaN(typedNumber(text))
			? `“${text.trim().slice(0, 20)}” is no number.`
			: ''
	);
	/** What is asked of the server, or null while something is missing. */
	const asked = $derived.by(() => {
		if (!deed || !selected) return null;
		if (deed === 'move' || deed === 'copy')
			return toBank === null ? null : { do: deed, chosen: view.chosen, to: { bankId: toBank, categoryId: toCategory } };
		if (deed === 'points') return text.trim() && !wrong ? edit({ edit: 'points', points: typedNumber(text) }) : null;
		if (deed === 'tags') return added.length || taken.length ? edit({ edit: 'tags', add: added, remove: taken }) : null;
		if (deed === 'difficulty') return edit({ edit: 'difficulty', difficulty: text });
		if (deed === 'language') return edit({ edit: 'language', language: text });
		if (deed === 'replace') return text ? edit({ edit: 'replace', find: text, put, exactCase, wholeWords }) : null;
		if (deed === 'disputed') return { do: 'key', chosen: view.chosen, state: 'disputed', note: text };
		return null;
	});
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

	function begin(what: Deed) {
		deed = what;
		text = '';
		into = '';
		put = '';
		added = [];
		taken = [];
		toBank = null;
		toCategory = null;
		view.failure = '';
		open = true;
	}
	const atOnce = (what: object) => view.actAtOnce('bulk', what);
	function choose(value: string) {
		if (value === 'shuffleOn' || value === 'shuffleOff')
			void atOnce(edit({ edit: 'shuffle', on: value === 'shuffleOn' }));
		else if (value === 'pin' || value === 'unpin')
			void atOnce(edit({ edit: 'pin', which: value === 'pin' ? 'last' : 'none' }));
		else if (value === 'machine' || value === 'person')
			void atOnce({ do: 'machine', chosen: view.chosen, on: value === 'machine' ? 'yes' : 'no' });
		else if (value === 'unverified') void atOnce({ do: 'key', chosen: view.chosen, state: 'unverified' });
		else if (value === 'dispatch') void dispatchThese();
		else begin(value as Deed);
	}
	async function dispatchThese() {
		const sent = await send<{ selectionId: number }>(`/courses/${view.courseId}/banks/dispatch`, {
			chosen: view.chosen
		});
		if (sent.ok) await goto(`/courses/${view.courseId}/dispatch?selection=${sent.value.selectionId}`);
		else tell(sent.message);
	}
	async function act() {
		if (deed === 'quiz') {
			const [quizId, part] = into.split(' ').map(Number);
			const sent = await send<{ quizId: number }>(`/courses/${view.courseId}/banks/quiz`, {
				chosen: view.chosen,
				...(into ? { quizId, part: part! < 0 ? null : part } : { title: text })
			});
			if (sent.ok) await goto(`/courses/${view.courseId}/quizzes/${sent.value.quizId}`);
			else view.failure = sent.message;
			return;
		}
		const leaves = deed === 'move';
		if (!(await view.act('bulk', asked))) return;
		open = false;
		if (leaves) view.selection.clear();
	}
	const titles: Record<Deed, string> = {
		move: 'Move',
		copy: 'Copy',
		points: 'Points of',
		tags: 'Tags of',
		shuffle: 'Shuffle',
		pin: 'Pin',
		difficulty: 'Difficulty of',
		language: 'Language of',
		replace: 'Replace words in',
		disputed: 'Doubt the key of',
		quiz: 'A quiz of'
	};
	const does = $derived(
		deed === 'quiz'
			? `${into ? 'Add' : 'Make a quiz of'} ${count(selected, 'question')}`
			: preview
				? `Change ${count(preview.changes, 'question')}`
				: 'Change'
	);
	const focus = (node: HTMLElement) => node.focus();
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
		title="{titles[deed]} {count(selected, 'question')}"
		{does}
		ready={deed === 'quiz' ? into !== '' || !!text.trim() : preview !== null && preview.changes > 0}
		busy={view.busy}
		failure={view.failure || fault}
		wide={deed === 'replace'}
		{act}
	>
		{#if deed === 'move' || deed === 'copy'}
			<PlaceChoice bind:bankId={toBank} bind:categoryId={toCategory} courseId={view.courseId} />
		{:else if deed === 'points'}
			<label class="flex flex-col gap-1"
				>Points each <input
					class="input w-28"
					inputmode="decimal"
					aria-invalid={wrong ? 'true' : undefined}
					bind:value={text}
					use:focus
				/>{#if wrong}<span class="broken text-[12.5px]" role="alert">{wrong}</span>{/if}</label
			>
		{:else if deed === 'tags'}
			<TagsField label="Add" bind:tags={added} courseId={view.courseId} focused />
			<TagsField label="Take away" bind:tags={taken} courseId={view.courseId} />
		{:else if deed === 'difficulty'}
			<label class="flex flex-col gap-1"
				>Difficulty <input
					class="input"
					maxlength="60"
					placeholder="empty for none"
					bind:value={text}
					use:focus
				/></label
			>
		{:else if deed === 'language'}
			<label class="flex flex-col gap-1"
				>Language <input
					class="input w-40"
					maxlength="35"
					placeholder="en, de, pt-BR"
					bind:value={text}
					use:focus
				/></label
			>
		{:else if deed === 'disputed'}
			<label class="flex flex-col gap-1"
				>What is doubted <textarea class="textarea" rows="3" maxlength="1000" bind:value={text} use:focus
				></textarea></label
			>
		{:else if deed === 'quiz'}
			<QuizChoice courseId={view.courseId} bind:into bind:title={text} />
		{:else if deed === 'replace'}
			<div class="flex gap-3">
				<label class="flex flex-1 flex-col gap-1">Look for <input class="input" bind:value={text} use:focus /></label>
				<label class="flex flex-1 flex-col gap-1">Put <input class="input" bind:value={put} /></label>
			</div>
			<div class="flex gap-5">
				<label class="flex items-center gap-2"
					><input type="checkbox" class="checkbox" bind:checked={wholeWords} /> whole words</label
				>
				<label class="flex items-center gap-2"
					><input type="checkbox" class="checkbox" bind:checked={exactCase} /> capitals matter</label
				>
			</div>
			<p class="mute text-[13px]">
				In stems, options, feedback and hints; accepted answers and titles stay as they are.
			</p>
		{/if}
		{#if preview}
			<p role="status">
				{preview.words}
				{#if preview.changes < preview.chosen}{figure(preview.chosen - preview.changes)} of {figure(preview.chosen)} need
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
