<script lang="ts">
	import { goto } from '$app/navigation';
	import Choices from '$lib/ui/Choices.svelte';
	import { send } from '$lib/ui/doing';
	import Toggle from '$lib/ui/Toggle.svelte';
	import { figure } from '$lib/ui/words';
	import Plus from '@lucide/svelte/icons/plus';
	import type { PageData } from './$types';
	import type { BankView } from './bank.svelte';
	import BankAbout from './BankAbout.svelte';
	import BankTree from './BankTree.svelte';
	import { atOnce, bankDeeds, categoryDeeds, type TreeDeed } from './tree-deeds';

	/** Where one is: the bank and its categories, and what can be done with them; `ask` opens the sheet for a deed. */
	let {
		data,
		bank,
		category,
		view,
		ask
	}: {
		data: PageData;
		bank: NonNullable<PageData['bank']>;
		category: PageData['tree'][number] | null;
		view: BankView;
		ask: (deed: TreeDeed) => void;
	} = $props();

	async function quizOf(place: { bankId: number; categoryId: number | null }) {
		const sent = await send<{ quizId: number }>(`/courses/${data.course.id}/quizzes/from`, place);
		if (sent.ok) await goto(`/courses/${data.course.id}/quizzes/${sent.value.quizId}`);
		else view.failure = sent.message;
	}
	function doTree(value: string) {
		const deed = value as TreeDeed;
		const here = { bankId: bank.id, parentId: category?.id ?? null };
		if (deed === 'quizOf') return void quizOf({ bankId: here.bankId, categoryId: here.parentId });
		if (!atOnce.has(deed)) ask(deed);
		else void view.actAtOnce('tree', { do: deed, ...here });
	}
	function drop(sort: 'category' | 'question', keys: number[], onto: number | null) {
		const bankId = bank.id;
		if (sort === 'category')
			void view.actAtOnce('tree', { do: 'moveCategory', bankId, categoryId: keys[0], parentId: onto });
		else void view.actAtOnce('bulk', { do: 'move', chosen: { bankId, ids: keys }, to: { bankId, categoryId: onto } });
	}
</script>

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
			/>{:else}<button type="button" class="btn btn-sm preset-outlined-brand" onclick={() => ask('makeCategory')}
				><Plus size={13} /> Category</button
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
