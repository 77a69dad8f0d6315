<script lang="ts">
	import { page } from '$app/state';
	import { pathOfKey } from '$core/take-in/paths';
	import type { QuestionRow } from '$lib/server/banks/question-rows';
	import Columns from '$lib/ui/Columns.svelte';
	import { isNoShortcut } from '$lib/ui/keys';
	import { figure, pathText } from '$lib/ui/words';
	import { untrack } from 'svelte';
	import { BankView } from './bank.svelte';
	import { ChosenQuestion } from './chosen.svelte';
	import BankHead from './BankHead.svelte';
	import Bulk from './Bulk.svelte';
	import { columnsCookie, shownColumns } from './columns';
	import Empty from './Empty.svelte';
	import List from './List.svelte';
	import Opened from './Opened.svelte';
	import TreeSheet from './TreeSheet.svelte';
	import { questionsOfCell, type Place, type Shade } from './weave';
	import Weave from './Weave.svelte';
	import WeaveAbout from './WeaveAbout.svelte';
	import Where from './Where.svelte';

	let { data } = $props();
	let making = $state(false);
	/** Keys are set one after the other. */
	let keying = $state(false);
	let shade = $state<Shade>('whole');
	let cell = $state<Place | null>(null);
	let sheet: TreeSheet | undefined = $state();
	let columnIds = $state(untrack(() => data.columns));

	const view = untrack(() => new BankView(data.course.id));
	const chosen = new ChosenQuestion(view);
	// what the page draws first is what it was sent
	untrack(() => view.take(data.page, data.pageSize, data.filter));
	let taken = untrack(() => data.page);
	$effect(() => {
		if (data.page === taken) return;
		taken = data.page;
		view.take(data.page, data.pageSize, data.filter, chosen.place);
	});

	const category = $derived(data.tree.find(({ id }) => id === data.filter.categoryId) ?? null);
	const title = $derived(category?.name ?? data.bank?.name ?? 'Banks');
	const paths = $derived(new Map(data.tree.map(({ id, key }) => [id, pathText(pathOfKey(key))])));
	const place = $derived(view.pages.placeOf(chosen.id));
	const isWeave = $derived(data.weave !== null);

	function choose(question: QuestionRow) {
		making = false;
		void chosen.choose(question.id);
	}
	async function next() {
		if (await chosen.next()) making = false;
	}
	$effect(() => chosen.note(place, view.pages.total));
	const asked = $derived(Number(page.url.searchParams.get('question')) || null);
	$effect(() => {
		void view.pages;
		const question = asked;
		untrack(() => chosen.follow(question));
	});
	async function setKeys() {
		making = false;
		keying = true;
		chosen.id = null;
		await view.show({ snag: 'no-key', question: null });
		if (chosen.id === null) chosen.follow(null);
	}
	/** What was made is shown; null where it was given up. */
	function made(id: number | null) {
		making = false;
		if (id === null) return;
		chosen.id = id;
		void view.show({ question: String(id) });
	}
	function leaveKeys() {
		keying = false;
		void view.show({ snag: null, question: null });
	}
	function chooseColumns(ids: string[]) {
		columnIds = ids;
		document.cookie = `${columnsCookie}=${ids.join('.')}; path=/; max-age=31536000; samesite=lax`;
	}
	function keys(event: KeyboardEvent) {
		if (isNoShortcut(event) || !data.mayChange || isWeave) return;
		if (event.key === 'n') making = true;
		else if (event.key === 'x') {
			const question = view.pages.at(place);
			if (question) view.selection.select(question, !view.selection.isSelected(question.id));
		} else return;
		event.preventDefault();
	}
	const openCell = (place: Place) => void view.show(questionsOfCell(place, data.weave?.by ?? 'kind'));
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
			<Where {data} {bank} {category} {view} ask={(deed) => sheet?.ask(deed)} />
		{/snippet}
		{#snippet middle()}
			<BankHead
				{view}
				{title}
				total={isWeave ? bank.questions : view.pages.total}
				{isWeave}
				words={data.filter.words}
				saved={data.saved}
				mayChange={data.mayChange}
				columns={columnIds}
				{chooseColumns}
				{keying}
				{setKeys}
				make={() => (making = true)}
			/>
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
						chosen={chosen.id}
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
			{:else}<Opened
					{view}
					shown={chosen.shown}
					place={place >= 0 ? `${figure(place + 1)} of ${figure(view.pages.total)}` : ''}
					standing={[bank.name, ...(category ? pathOfKey(category.key) : [])]}
					begins={data.begins}
					mayChange={data.mayChange}
					{keying}
					{making}
					{next}
					{leaveKeys}
					{made}
				/>{/if}
		{/snippet}
	</Columns>
	{@render treeSheet(bank)}
{/if}
