<script lang="ts">
	import type { Carried } from '$lib/server/banks/carry';
	import { withUnder } from '$core/take-in/under';
	import type { CategoryNode } from '$lib/server/banks/tree';
	import Ask from '$lib/ui/Ask.svelte';
	import PlaceChoice from '$lib/ui/PlaceChoice.svelte';
	import Segments from '$lib/ui/Segments.svelte';
	import { count } from '$lib/ui/words';
	import { tell } from '$lib/ui/toasts';
	import type { BankView } from './bank.svelte';
	import type { TreeDeed } from './tree-deeds';

	/** The sheet for what is done to a bank or a category and needs to be told more. */
	let {
		view,
		bank,
		banks,
		tree,
		category,
		courses
	}: {
		view: BankView;
		bank: { id: number; name: string; questions: number; description: string };
		banks: { id: number; name: string }[];
		tree: CategoryNode[];
		/** The category that is chosen; null is the bank as a whole. */
		category: CategoryNode | null;
		courses: { id: number; name: string; code: string; intake: string; role: string; state: string }[];
	} = $props();

	let deed = $state<TreeDeed | null>(null);
	let name = $state('');
	let more = $state('');
	let into = $state<number | null>(null);
	let toBank = $state<number | null>(null);
	let toCategory = $state<number | null>(null);
	let how = $state<'move' | 'copy'>('move');
	let questions = $state<'above' | 'bin' | 'category'>('above');
	let rule = $state<'kind' | 'tag' | 'points' | 'difficulty' | 'language'>('kind');
	let open = $state(false);

	/** Opens the sheet for something. */
	export function ask(what: TreeDeed) {
		deed = what;
		name =
			what === 'renameBank' || what === 'copyBank'
				? bank.name
				: what === 'renameCategory' || what === 'splitBank'
					? (category?.name ?? '')
					: '';
		more = what === 'renameBank' ? bank.description : what === 'renameCategory' ? (category?.code ?? '') : '';
		into = what === 'copyBank' ? view.courseId : null;
		toBank = null;
		toCategory = null;
		view.failure = '';
		open = true;
	}

	const here = $derived({ bankId: bank.id, categoryId: category?.id ?? 0 });
	const under = $derived(category ? new Set(withUnder(tree, category.id)) : new Set<number>());
	const others = $derived(tree.filter(({ id }) => !under.has(id)));
	const subject = $derived(category ? `“${category.name}”` : `“${bank.name}”`);
	const all = $derived(count(category ? category.all : bank.questions, 'question'));
	/** The courses that a bank can go to: another one to move it, this one too to copy it. */
	const reachable = $derived(
		courses.filter(
			({ id, role, state }) => role !== 'look' && state === 'open' && (deed === 'copyBank' || id !== view.courseId)
		)
	);
	const rules = [
		['kind', 'kind of question'],
		['tag', 'first tag'],
		['points', 'points'],
		['difficulty', 'difficulty'],
		['language', 'language']
	] as const;

	interface Sheet {
		title: string;
		does: string;
		ready: boolean;
		asked: () => object;
	}
	const sheet = $derived.by((): Sheet => {
		switch (deed) {
			case 'makeBank':
				return {
					title: 'A new bank',
					does: 'Make the bank',
					ready: !!name.trim(),
					asked: () => ({ do: deed, name, description: more })
				};
			case 'renameBank':
				return {
					title: `The bank ${subject}`,
					does: 'Keep it',
					ready: !!name.trim(),
					asked: () => ({ do: deed, ...here, name, description: more })
				};
			case 'mergeBanks':
				return {
					title: `Merge ${subject} into another bank`,
					does: `Put ${count(bank.questions, 'question')} there`,
					ready: into !== null,
					asked: () => ({ do: deed, ...here, into })
				};
			case 'moveBank':
				return {
					title: `Move ${subject} to another course`,
					does: `Move ${count(bank.questions, 'question')}`,
					ready: into !== null,
					asked: () => ({ do: deed, ...here, courseId: into })
				};
			case 'copyBank':
				return {
					title: `Copy ${subject}`,
					does: `Copy ${count(bank.questions, 'question')}`,
					ready: into !== null && !!name.trim(),
					asked: () => ({ do: deed, bankId: bank.id, name, courseId: into })
				};
			case 'splitBank':
				return {
					title: `Make ${subject} a bank of its own`,
					does: `Move ${all}`,
					ready: !!name.trim(),
					asked: () => ({ do: deed, ...here, name })
				};
			case 'makeCategory':
				return {
					title: category ? `A category under ${subject}` : 'A category at the top',
					does: 'Make the category',
					ready: !!name.trim(),
					asked: () => ({ do: deed, bankId: bank.id, parentId: category?.id ?? null, name })
				};
			case 'renameCategory':
				return {
					title: `The category ${subject}`,
					does: 'Keep it',
					ready: !!name.trim(),
					asked: () => ({ do: deed, ...here, name, code: more })
				};
			case 'moveCategory':
				return {
					title: `Move ${subject} with ${all}`,
					does: 'Move it',
					ready: true,
					asked: () => ({ do: deed, ...here, parentId: into })
				};
			case 'mergeCategory':
				return {
					title: `Merge ${subject} into another category`,
					does: `Put ${all} there`,
					ready: into !== null,
					asked: () => ({ do: deed, ...here, into })
				};
			case 'carry':
				return {
					title: `${how === 'move' ? 'Move' : 'Copy'} ${category ? subject : 'all categories'} to another bank`,
					does: `${how === 'move' ? 'Move' : 'Copy'} up to ${all}`,
					ready: toBank !== null,
					asked: () => ({
						do: 'carryCategories',
						bankId: bank.id,
						categories: category ? [category.id] : tree.filter((node) => node.parentId === null).map(({ id }) => id),
						to: { bankId: toBank, categoryId: toCategory },
						how
					})
				};
			case 'split':
				return {
					title: `Split ${subject}`,
					does: `Sort ${count(category?.own ?? 0, 'question')}`,
					ready: true,
					asked: () => ({ do: 'splitCategory', ...here, rule })
				};
			default:
				return {
					title: `Take ${subject} away`,
					does: `Take it away, ${all} ${questions === 'bin' ? 'to the bin' : 'elsewhere'}`,
					ready: questions !== 'category' || into !== null,
					asked: () => ({ do: 'dropCategory', ...here, questions, into })
				};
		}
	});

	async function act() {
		const gone = deed === 'mergeBanks' || deed === 'moveBank' || deed === 'binBank';
		const leaves = deed === 'mergeCategory' || deed === 'dropCategory' || (deed === 'carry' && how === 'move');
		const made = deed === 'makeBank' || deed === 'splitBank' || (deed === 'copyBank' && into === view.courseId);
		const carried = deed === 'carry';
		const done = await view.act<Carried & { bankId?: number }>('tree', sheet.asked());
		if (!done) return;
		open = false;
		if (carried)
			tell(
				`${done.inAll} questions in ${done.categories} categories = ${done.fresh} new + ${done.changed} changed + ${done.near} nearly the same + ${done.same} there already. ${done.made} categories made in ${done.to.words}, ${done.to.course}.`
			);
		if (made && done.bankId) await view.show({ bank: String(done.bankId), category: null, question: null });
		else if (gone)
			await view.show({ bank: into && deed === 'mergeBanks' ? String(into) : null, category: null, question: null });
		else if (leaves) await view.show({ category: null, question: null });
	}
	const atOnce = (node: HTMLElement) => node.focus();
</script>

{#if deed}
	<Ask
		bind:open
		title={sheet.title}
		does={sheet.does}
		ready={sheet.ready}
		busy={view.busy}
		failure={view.failure}
		{act}
	>
		{#if deed === 'makeBank' || deed === 'renameBank'}
			<label class="flex flex-col gap-1"
				>Name <input class="input" maxlength="190" bind:value={name} use:atOnce /></label
			>
			<label class="flex flex-col gap-1"
				>What it is for <textarea class="textarea" rows="3" maxlength="4000" bind:value={more}></textarea></label
			>
		{:else if deed === 'makeCategory' || deed === 'renameCategory'}
			<label class="flex flex-col gap-1"
				>Name <input class="input" maxlength="255" bind:value={name} use:atOnce /></label
			>
			{#if deed === 'renameCategory'}<label class="flex flex-col gap-1"
					>Reference code <input class="input" maxlength="60" bind:value={more} /></label
				>{/if}
		{:else if deed === 'mergeBanks'}
			<label class="flex flex-col gap-1"
				>Into
				<select class="select" bind:value={into}
					><option value={null}>choose a bank</option
					>{#each banks.filter(({ id }) => id !== bank.id) as other (other.id)}<option value={other.id}
							>{other.name}</option
						>{/each}</select
				></label
			>
			<p class="mute">
				Categories of one path become one. The bank {subject} is gone then; quizzes that draw from it draw from the other.
			</p>
		{:else if deed === 'splitBank'}
			<label class="flex flex-col gap-1"
				>Name of the bank <input class="input" maxlength="190" bind:value={name} use:atOnce /></label
			>
			<p class="mute">
				What is under {subject} stands at the top of it then. Quizzes that draw from it draw from there.
			</p>
		{:else if deed === 'moveBank' || deed === 'copyBank'}
			{#if deed === 'copyBank'}<label class="flex flex-col gap-1"
					>Name of the copy <input class="input" maxlength="190" bind:value={name} use:atOnce /></label
				>{/if}
			<label class="flex flex-col gap-1"
				>{deed === 'copyBank' ? 'In' : 'To'} the course
				<select class="select" bind:value={into}
					>{#if deed === 'moveBank'}<option value={null}>choose a course</option
						>{/if}{#each reachable as course (course.id)}<option value={course.id}
							>{[course.name, course.code, course.intake].filter(Boolean).join(' · ')}</option
						>{/each}</select
				></label
			>
			<p class="mute">
				{deed === 'copyBank'
					? 'It gets a number behind its name where another bank there has it. Keys that were verified stay so.'
					: 'Quizzes of this course that draw from it remember it, and have it again when it comes back.'}
			</p>
		{:else if deed === 'moveCategory' || deed === 'mergeCategory'}
			<label class="flex flex-col gap-1"
				>{deed === 'moveCategory' ? 'Under' : 'Into'}
				<select class="select" bind:value={into}
					><option value={null}>{deed === 'moveCategory' ? 'the top of the bank' : 'choose a category'}</option
					>{#each others as node (node.id)}<option value={node.id}>{' '.repeat(node.depth * 3)}{node.name}</option
						>{/each}</select
				></label
			>
		{:else if deed === 'carry'}
			<Segments
				bind:value={how}
				choices={[
					{ value: 'move', name: 'Move' },
					{ value: 'copy', name: 'Copy' }
				]}
				label="Move or copy"
			/>
			<PlaceChoice bind:bankId={toBank} bind:categoryId={toCategory} courseId={view.courseId} except={bank.id} />
			<p class="mute">
				Categories are merged by their names with those that are there, and each question is held against those of that
				bank.
				{how === 'move'
					? 'What is there already goes to the bin of this course.'
					: 'What is there already is not copied again.'}
			</p>
		{:else if deed === 'split'}
			<label class="flex flex-col gap-1"
				>By <select class="select" bind:value={rule}
					>{#each rules as [value, words] (value)}<option {value}>{words}</option>{/each}</select
				></label
			>
			<p class="mute">
				Each value gets a category under {subject}, and the questions that stand in it go there. Questions without one
				stay.
			</p>
		{:else if deed === 'dropCategory'}
			<fieldset class="flex flex-col gap-2">
				<legend class="mb-1">Its {all}, with those under it</legend>
				<label
					><input type="radio" value="above" bind:group={questions} /> go to {tree.find(
						({ id }) => id === category?.parentId
					)?.name ?? 'the bank itself'}</label
				>
				<label><input type="radio" value="category" bind:group={questions} /> go to another category</label>
				{#if questions === 'category'}<select class="select ml-5" aria-label="The category" bind:value={into}
						><option value={null}>choose a category</option>{#each others as node (node.id)}<option value={node.id}
								>{' '.repeat(node.depth * 3)}{node.name}</option
							>{/each}</select
					>{/if}
				<label><input type="radio" value="bin" bind:group={questions} /> go to the bin</label>
			</fieldset>
		{/if}
	</Ask>
{/if}
