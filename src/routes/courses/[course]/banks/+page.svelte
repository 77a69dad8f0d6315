<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { pathOfKey } from '$core/take-in/paths';
	import type { StoredQuestion } from '$lib/server/banks/banks';
	import type { QuestionRow } from '$lib/server/banks/pages';
	import Choices from '$lib/ui/Choices.svelte';
	import Columns from '$lib/ui/Columns.svelte';
	import { send } from '$lib/ui/doing';
	import { isNoShortcut } from '$lib/ui/keys';
	import { latest } from '$lib/ui/latest';
	import Segments from '$lib/ui/Segments.svelte';
	import Toggle from '$lib/ui/Toggle.svelte';
	import { figure, pathText } from '$lib/ui/words';
	import KeyRound from '@lucide/svelte/icons/key-round';
	import Plus from '@lucide/svelte/icons/plus';
	import { untrack } from 'svelte';
	import BankAbout from './BankAbout.svelte';
	import { BankView } from './bank.svelte';
	import BankTree from './BankTree.svelte';
	import Bulk from './Bulk.svelte';
	import ColumnChoice from './ColumnChoice.svelte';
	import { columnsCookie, shownColumns } from './columns';
	import Empty from './Empty.svelte';
	import Filters from './Filters.svelte';
	import List from './List.svelte';
	import NewQuestion from './NewQuestion.svelte';
	import QuestionPanel from './QuestionPanel.svelte';
	import SetKey from './SetKey.svelte';
	import { atOnce, bankDeeds, categoryDeeds, type TreeDeed } from './tree-deeds';
	import TreeSheet from './TreeSheet.svelte';
	import type { Place, Shade } from './weave';
	import Weave from './Weave.svelte';
	import WeaveAbout from './WeaveAbout.svelte';

	let { data } = $props();
	let shown = $state<StoredQuestion | null>(null);
	let chosen = $state<number | null>(null);
	let making = $state(false);
	/** Keys are set one after the other. */
	let keying = $state(false);
	let shade = $state<Shade>('whole');
	let cell = $state<Place | null>(null);
	let sheet: TreeSheet | undefined = $state();
	let columnIds = $state(untrack(() => data.columns));
	let timer: ReturnType<typeof setTimeout> | undefined;

	const view = untrack(() => new BankView(data.course.id));
	// what the page draws first is what it was sent
	untrack(() => view.take(data.page, data.pageSize, data.filter));
	let taken = untrack(() => data.page);
	$effect(() => {
		if (data.page === taken) return;
		taken = data.page;
		view.take(data.page, data.pageSize, data.filter);
	});

	const category = $derived(data.tree.find(({ id }) => id === data.filter.categoryId) ?? null);
	const title = $derived(category?.name ?? data.bank?.name ?? 'Banks');
	const paths = $derived(new Map(data.tree.map(({ id, key }) => [id, pathText(pathOfKey(key))])));
	const place = $derived(view.pages.placeOf(chosen) + 1);
	const isWeave = $derived(data.weave !== null);

	function look(words: string) {
		clearTimeout(timer);
		timer = setTimeout(() => void view.show({ words, question: null }), 250);
	}
	const fetchQuestion = latest(async (id: number) => {
		const answer = await fetch(`/courses/${data.course.id}/banks/questions/${id}`);
		return answer.ok ? ((await answer.json()) as StoredQuestion) : undefined;
	});
	async function open(id: number) {
		const found = await fetchQuestion(id);
		if (found !== null) shown = found ?? null;
	}
	function choose(question: QuestionRow) {
		making = false;
		chosen = question.id;
		void open(question.id);
	}
	async function next() {
		const after = await view.pages.load(view.pages.placeOf(chosen) + 1);
		if (after) choose(after);
	}
	$effect(() => {
		const asked = Number(page.url.searchParams.get('question')) || null;
		const first = data.page.rows;
		void view.changed;
		untrack(() => {
			if (chosen !== null && view.pages.placeOf(chosen) >= 0) return void open(chosen);
			chosen = first.find(({ id }) => id === asked)?.id ?? first[0]?.id ?? null;
			if (chosen) void open(chosen);
			else shown = null;
		});
	});
	function setKeys() {
		making = false;
		keying = true;
		chosen = null;
		void view.show({ snag: 'no-key', question: null });
	}
	function leaveKeys() {
		keying = false;
		void view.show({ snag: null, question: null });
	}
	async function quizOf(place: { bankId: number; categoryId: number | null }) {
		const sent = await send<{ quizId: number }>(`/courses/${data.course.id}/quizzes/from`, place);
		if (sent.ok) await goto(`/courses/${data.course.id}/quizzes/${sent.value.quizId}`);
		else view.failure = sent.message;
	}
	function doTree(value: string) {
		const deed = value as TreeDeed;
		const here = { bankId: data.bank!.id, parentId: category?.id ?? null };
		if (deed === 'quizOf') return void quizOf({ bankId: here.bankId, categoryId: here.parentId });
		if (!atOnce.has(deed)) sheet?.ask(deed);
		else void view.actAtOnce('tree', { do: deed, ...here });
	}
	function drop(sort: 'category' | 'question', keys: number[], onto: number | null) {
		const bankId = data.bank!.id;
		if (sort === 'category')
			void view.actAtOnce('tree', { do: 'moveCategory', bankId, categoryId: keys[0], parentId: onto });
		else void view.actAtOnce('bulk', { do: 'move', chosen: { bankId, ids: keys }, to: { bankId, categoryId: onto } });
	}
	function chooseColumns(ids: string[]) {
		columnIds = ids;
		document.cookie = `${columnsCookie}=${ids.join('.')}; path=/; max-age=31536000; samesite=lax`;
	}
	function keys(event: KeyboardEvent) {
		if (isNoShortcut(event) || !data.mayChange || isWeave) return;
		if (event.key === 'n') making = true;
		else if (event.key === 'x' && chosen !== null) {
			const question = view.pages.at(view.pages.placeOf(chosen));
			if (question) view.selection.select(question, !view.selection.isSelected(chosen));
		} else return;
		event.preventDefault();
	}
	function openCell({ bankId, categoryId, column }: Place) {
		const by = data.weave?.by ?? 'kind';
		void view.show({
			view: null,
			bank: String(bankId),
			across: null,
			beside: null,
			category: categoryId === null ? null : String(categoryId),
			under: '0',
			question: null,
			[by]: by === 'difficulty' && !column ? 'none' : column
		});
	}
	const views = [
		{ value: 'list', name: 'List' },
		{ value: 'weave', name: 'Weave' }
	] as const;
</script>

<svelte:head><title>{title} · Banks · Yarn Barrow</title></svelte:head>
<svelte:window onkeydown={keys} />
{#snippet treeSheet(bank: { id: number; name: string; questions: number })}
	<TreeSheet
		bind:this={sheet}
		{view}
		bank={{ ...bank, description: data.about?.description ?? '' }}
		banks={data.banks}
		tree={data.tree}
		{category}
		courses={data.courses}
	/>
{/snippet}
{#if !data.bank}
	<Empty courseId={data.course.id} mayChange={data.mayChange} make={() => sheet?.ask('makeBank')} />
	{@render treeSheet({ id: 0, name: '', questions: 0 })}
{:else}
	{@const bank = data.bank}
	<Columns name="banks" widths={[264, 420]} firstLabel="Categories" middleLabel="Questions" lastLabel="The question">
		{#snippet first()}
			<h1 class="visually-hidden">Banks of {data.course.name}</h1>
			<select
				class="select mb-2 w-full font-bold"
				aria-label="Bank"
				value={bank.id}
				onchange={(event) =>
					view.show({ bank: event.currentTarget.value, category: null, question: null, words: null, kind: null })}
			>
				{#each data.banks as other (other.id)}<option value={other.id}>{other.name} ({figure(other.questions)})</option
					>{/each}
			</select>
			{#if data.mayChange}
				<div class="mb-2 flex gap-2">
					<Choices name="Bank" label="What to do with the bank" choices={bankDeeds} choose={doTree} />
					{#if category}<Choices
							name="Category"
							label="What to do with the category"
							choices={categoryDeeds}
							choose={doTree}
						/>{:else}<button
							type="button"
							class="btn btn-sm preset-outlined-brand"
							onclick={() => sheet?.ask('makeCategory')}><Plus size={13} /> Category</button
						>{/if}
				</div>
			{/if}
			<div class="mute mb-2 text-[13px]">
				<Toggle
					on={data.filter.withUnder}
					change={(on) => view.show({ under: on ? null : '0' })}
					label="with what is under it"
				/>
			</div>
			{#key bank.id}
				<BankTree
					tree={data.tree}
					questions={bank.questions}
					chosen={data.filter.categoryId}
					choose={(id) => view.show({ category: id === null ? null : String(id), question: null })}
					label="Categories of {bank.name}"
					{...data.mayChange ? { drop } : {}}
				/>
			{/key}
			{#if data.about}<BankAbout about={data.about} courseId={data.course.id} />{/if}
		{/snippet}
		{#snippet middle()}
			<div class="filters">
				<h2 class="cut mr-auto" {title}>
					{title}
					<span class="mute font-normal">{isWeave ? figure(bank.questions) : figure(view.pages.total)}</span>
				</h2>
				<Segments
					value={isWeave ? 'weave' : 'list'}
					choices={views}
					label="List or weave"
					change={(value) => view.show({ view: value === 'weave' ? 'weave' : null })}
				/>
				{#if !isWeave}
					<input
						class="input"
						type="search"
						placeholder="find words"
						aria-label="Find words"
						value={data.filter.words}
						oninput={(event) => look(event.currentTarget.value)}
					/>
					<Filters {view} saved={data.saved} mayChange={data.mayChange} />
					<ColumnChoice chosen={columnIds} choose={chooseColumns} />
					{#if data.mayChange}<button
							type="button"
							class="btn btn-sm preset-outlined-brand"
							aria-label="Set keys"
							aria-pressed={keying}
							title="Set the keys of questions that have none, one after the other"
							onclick={setKeys}><KeyRound size={13} /></button
						>
						<button
							type="button"
							class="btn btn-sm preset-filled-brand"
							aria-label="Make a question"
							onclick={() => (making = true)}><Plus size={14} /></button
						>{/if}
				{/if}
			</div>
			{#if data.weave}
				<Weave
					{view}
					weaves={data.weave.weaves}
					by={data.weave.by}
					banks={data.banks}
					bind:shade
					bind:chosen={cell}
					open={openCell}
				/>
			{:else}
				{#if view.selection.selected && data.mayChange}<Bulk {view} />{/if}
				{#if view.pages.total}<List
						{view}
						columns={shownColumns(columnIds)}
						{chosen}
						{choose}
						categoryOf={(id) => (id === null ? '' : (paths.get(id) ?? ''))}
						mayChange={data.mayChange}
					/>{:else}<p class="mute p-5">
						{data.filter.words ? `No question here has the words “${data.filter.words}”.` : 'No question stands here.'}
					</p>{/if}
			{/if}
		{/snippet}
		{#snippet last()}
			{#if data.weave}<WeaveAbout weaves={data.weave.weaves} chosen={cell} open={openCell} />
			{:else if keying && shown}
				{#key shown.id}<SetKey
						stored={shown}
						{view}
						place={place ? `${figure(place)} of ${figure(view.pages.total)}` : ''}
						{next}
						leave={leaveKeys}
					/>{/key}
			{:else if keying}
				<h2 class="mb-2">Every question here has a key</h2>
				<button type="button" class="btn btn-sm preset-outlined-brand" onclick={leaveKeys}>Back to all questions</button
				>
			{:else if making}
				<NewQuestion
					{view}
					place={[bank.name, ...(category ? pathOfKey(category.key) : [])]}
					begins={data.begins}
					done={(id) => {
						making = false;
						if (id !== null) {
							chosen = id;
							void view.show({ question: String(id) });
						}
					}}
				/>
			{:else if shown}<QuestionPanel
					stored={shown}
					{view}
					place={place ? `${figure(place)} of ${figure(view.pages.total)}` : ''}
					mayChange={data.mayChange}
					{next}
				/>{/if}
		{/snippet}
	</Columns>
	{@render treeSheet(bank)}
{/if}

<style>
	.filters {
		flex-wrap: wrap;
		gap: 6px;
	}
	.filters input {
		flex: 1 1 80px;
		min-width: 80px;
		max-width: 130px;
	}
	.filters h2 {
		flex: 1 1 100px;
		min-width: 90px;
	}
</style>
