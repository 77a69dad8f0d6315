<script lang="ts">
	import { kinds, kindName } from '$core/kinds';
	import { checks } from '$core/checks';
	import { lackNames, lacks } from '$lib/forms/lacks';
	import type { FilterName, Filters } from '$lib/server/banks/conditions';
	import { goto } from '$app/navigation';
	import type { SavedFilter } from '$lib/server/banks/saved';
	import type { QuizOfFilter } from '$lib/server/quizzes/make';
	import { Popover } from '@skeletonlabs/skeleton-svelte';
	import Filter from '@lucide/svelte/icons/list-filter';
	import X from '@lucide/svelte/icons/x';
	import { send } from '$lib/ui/doing';
	import { tell } from '$lib/ui/toasts';
	import { count } from '$lib/ui/words';
	import { page } from '$app/state';
	import type { BankView } from './bank.svelte';

	/** What the questions of the list have to be: chosen in a sheet, shown as a line of what is asked, saved by name. */
	let { view, saved, mayChange }: { view: BankView; saved: SavedFilter[]; mayChange: boolean } = $props();

	type Choice = readonly [value: string, name: string];
	interface Field {
		name: FilterName;
		words: string;
		choices?: readonly Choice[];
		type?: 'text' | 'number' | 'date';
	}
	const yesNo = (yes: string, no: string): Choice[] => [
		['yes', yes],
		['no', no]
	];
	const fields: Field[] = [
		{ name: 'kind', words: 'Kind', choices: kinds.map((kind) => [kind, kindName(kind)] as const) },
		{
			name: 'key',
			words: 'Key',
			choices: [
				['verified', 'verified'],
				['unverified', 'not verified'],
				['disputed', 'doubted'],
				['machine', 'by a machine, not verified']
			]
		},
		{
			name: 'snag',
			words: 'Snags',
			choices: [
				['any', 'with snags'],
				['none', 'without'],
				['broken', 'broken'],
				['doubtful', 'doubtful'],
				['untidy', 'untidy'],
				...checks.map(({ id, title }) => [id, title] as const)
			]
		},
		{ name: 'lack', words: 'Lacks', choices: lacks.map((lack) => [lack, lackNames[lack]] as const) },
		{ name: 'tag', words: 'Tag' },
		{ name: 'points', words: 'Points', type: 'number' },
		{ name: 'difficulty', words: 'Difficulty' },
		{ name: 'language', words: 'Language' },
		{ name: 'used', words: 'In quizzes', choices: yesNo('named by a quiz', 'named by none') },
		{ name: 'shuffle', words: 'Shuffle', choices: yesNo('on', 'off') },
		{ name: 'feedback', words: 'Feedback', choices: yesNo('has some', 'has none') },
		{ name: 'since', words: 'Came from', type: 'date' },
		{ name: 'until', words: 'Came until', type: 'date' },
		{ name: 'changed', words: 'Changed from', type: 'date' }
	];
	const asked = $derived(fields.filter(({ name }) => view.filter.filters[name]));
	const valueOf = (field: Field, filters: Filters) => {
		const value = filters[field.name] ?? '';
		return field.choices?.find(([choice]) => choice === value)?.[1] ?? value;
	};
	let open = $state(false);
	let name = $state('');
	let kept = $derived(saved);

	const set = (field: FilterName, value: string) => view.show({ [field]: value || null, question: null });
	async function save() {
		const sent = await send<SavedFilter[]>(`/courses/${view.courseId}/banks/saved`, { name, query: page.url.search });
		if (!sent.ok) return tell(sent.message);
		kept = sent.value;
		name = '';
	}
	async function drop(id: number) {
		const sent = await send<SavedFilter[]>(`/courses/${view.courseId}/banks/saved?id=${id}`, {}, 'DELETE');
		if (sent.ok) kept = sent.value;
		else tell(sent.message);
	}
	/** Makes a quiz of what a filter finds where one is, and goes there. */
	async function makeQuiz({ id }: SavedFilter) {
		const { bankId, categoryId } = view.filter;
		const sent = await send<QuizOfFilter>(`/courses/${view.courseId}/quizzes/from`, {
			bankId,
			categoryId,
			filterId: id
		});
		if (!sent.ok) return tell(sent.message);
		const { quizId, listed } = sent.value;
		tell(
			listed === null
				? 'The quiz draws from what fits the filter, also what comes later.'
				: `The quiz lists the ${count(listed, 'question')} that fit now: a pool cannot ask for all that the filter asks for.`
		);
		await goto(`/courses/${view.courseId}/quizzes/${quizId}`);
	}
	function use(query: string) {
		const wanted = new URLSearchParams(query);
		const names = [...fields.map((field) => field.name), 'words', 'sort', 'down'] as const;
		void view.show(Object.fromEntries(names.map((part) => [part, wanted.get(part)])));
		open = false;
	}
</script>

<Popover {open} onOpenChange={(details) => (open = details.open)} positioning={{ placement: 'bottom-end' }}>
	<Popover.Trigger class="btn btn-sm preset-outlined-brand" aria-label="Filter"
		><Filter size={13} /> Filter{asked.length ? ` ${asked.length}` : ''}</Popover.Trigger
	>
	<Popover.Positioner class="over">
		<Popover.Content class="panel p-3 w-[430px]" aria-label="Filter">
			{#if open}
				<div class="fields">
					{#each fields as field (field.name)}
						<label for="filter-{field.name}">{field.words}</label>
						{#if field.choices}
							<select
								id="filter-{field.name}"
								class="select w-full"
								value={view.filter.filters[field.name] ?? ''}
								onchange={(event) => set(field.name, event.currentTarget.value)}
								><option value="">any</option>{#each field.choices as [value, words] (value)}<option {value}
										>{words}</option
									>{/each}</select
							>
						{:else}<input
								id="filter-{field.name}"
								class="input w-full"
								type={field.type ?? 'text'}
								step="any"
								value={view.filter.filters[field.name] ?? ''}
								onchange={(event) => set(field.name, event.currentTarget.value)}
							/>{/if}
					{/each}
				</div>
				<div class="mt-3 border-t border-(--line) pt-2">
					{#each kept as filter (filter.id)}
						<div class="flex items-center gap-2 py-[2px]">
							<button type="button" class="word cursor-pointer" onclick={() => use(filter.query)}>{filter.name}</button>
							<span class="mute text-[12px]">by {filter.by}</span>
							{#if mayChange}<button
									type="button"
									class="word ml-auto cursor-pointer text-[13px]"
									title="Of what it finds in {view.filter.categoryId === null ? 'this bank' : 'this category'}"
									onclick={() => makeQuiz(filter)}>make a quiz</button
								><button
									type="button"
									class="cursor-pointer"
									aria-label="Let the filter {filter.name} go"
									onclick={() => drop(filter.id)}><X size={14} /></button
								>{/if}
						</div>
					{/each}
					{#if mayChange && (asked.length || view.filter.words || view.filter.sort !== 'tree')}
						<form class="mt-2 flex gap-2" onsubmit={(event) => (event.preventDefault(), void save())}>
							<input
								class="input flex-1"
								maxlength="120"
								placeholder="a name for this filter"
								aria-label="A name for this filter"
								bind:value={name}
							/>
							<button class="btn btn-sm preset-outlined-brand" disabled={!name.trim()}>Save for the course</button>
						</form>
					{/if}
				</div>
			{/if}
		</Popover.Content>
	</Popover.Positioner>
</Popover>
{#if asked.length}
	<div class="asked">
		{#each asked as field (field.name)}<span class="chip"
				>{field.words}: {valueOf(field, view.filter.filters)}<button
					type="button"
					aria-label="No longer by {field.words}"
					onclick={() => set(field.name, '')}><X size={12} /></button
				></span
			>{/each}
		<button
			type="button"
			class="word cursor-pointer text-[13px]"
			onclick={() => view.show(Object.fromEntries(asked.map((field) => [field.name, null])))}>none of these</button
		>
	</div>
{/if}

<style>
	.fields {
		display: grid;
		grid-template-columns: 110px 1fr;
		gap: 5px 10px;
		align-items: center;
	}
	.fields label {
		color: var(--ink2);
		font-size: 13px;
	}
	.asked {
		order: 1;
		flex-basis: 100%;
		display: flex;
		flex-wrap: wrap;
		gap: 6px;
		align-items: center;
	}
	.chip {
		display: inline-flex;
		align-items: center;
		gap: 4px;
		border: 1px solid var(--line2);
		border-radius: 12px;
		padding: 0 8px;
		background: transparent;
		color: var(--ink);
		font-size: 12.5px;
	}
	.chip button {
		cursor: pointer;
	}
</style>
