<script lang="ts">
	import type { Carried, CarryCounts } from '$lib/server/banks/carry';
	import { withUnder } from '$core/take-in/under';
	import type { CategoryNode } from '$lib/server/banks/tree';
	import Ask from '$lib/ui/Ask.svelte';
	import { count, figure } from '$lib/ui/words';
	import { tell } from '$lib/ui/toasts';
	import type { BankView } from './bank.svelte';
	import CarryFields from './CarryFields.svelte';
	import type { TreeDeed } from './tree-deeds';
	import { slipIn, treeSheet, type TreeFilled, type TreeSubject } from './tree-sheets';

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
	let how = $state<TreeFilled['how']>('move');
	let carry = $state.raw<CarryCounts | null>(null);
	let questions = $state<TreeFilled['questions']>('above');
	let rule = $state<TreeFilled['rule']>('kind');
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

	const under = $derived(category ? new Set(withUnder(tree, category.id)) : new Set<number>());
	const others = $derived(tree.filter(({ id }) => !under.has(id)));
	const called = $derived(`“${category?.name ?? bank.name}”`);
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

	const subject = $derived<TreeSubject>({ bank, tree, category });
	const filled = $derived<TreeFilled>({
		name,
		more,
		into,
		to: { bankId: toBank, categoryId: toCategory },
		how,
		questions,
		rule,
		carry
	});
	const sheet = $derived(deed && treeSheet(deed, subject, filled));
	/** What is wrong with a name, once there is one. */
	const slip = $derived(deed && name.trim() ? slipIn(deed, filled) : '');

	async function act() {
		const gone = deed === 'mergeBanks' || deed === 'moveBank' || deed === 'binBank';
		const leaves = deed === 'mergeCategory' || deed === 'dropCategory' || (deed === 'carry' && how === 'move');
		const made = deed === 'makeBank' || deed === 'splitBank' || (deed === 'copyBank' && into === view.courseId);
		const carried = deed === 'carry';
		const done = await view.act<Carried & { bankId?: number }>('tree', sheet!.asked());
		if (!done) return;
		open = false;
		if (carried)
			tell(
				`${count(done.inAll, 'question')} in ${count(done.categories, 'category', 'categories')} = ${figure(done.fresh)} new + ${figure(done.changed)} changed + ${figure(done.near)} nearly the same + ${figure(done.same)} there already. ${count(done.made, 'category', 'categories')} made in ${done.to.words}, ${done.to.course}.`
			);
		if (made && done.bankId) await view.show({ bank: String(done.bankId), category: null, question: null });
		else if (gone)
			await view.show({ bank: into && deed === 'mergeBanks' ? String(into) : null, category: null, question: null });
		else if (leaves) await view.show({ category: null, question: null });
	}
	const atOnce = (node: HTMLElement) => node.focus();
</script>

{#if deed && sheet}
	<Ask
		bind:open
		title={sheet.title}
		does={sheet.does}
		ready={sheet.ready}
		busy={view.busy}
		failure={slip || view.failure}
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
				Categories of one path become one. The bank {called} is gone then; quizzes that draw from it draw from the other.
			</p>
		{:else if deed === 'splitBank'}
			<label class="flex flex-col gap-1"
				>Name of the bank <input class="input" maxlength="190" bind:value={name} use:atOnce /></label
			>
			<p class="mute">
				What is under {called} stands at the top of it then. Quizzes that draw from it draw from there.
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
			<CarryFields {view} {subject} {open} bind:how bind:toBank bind:toCategory bind:carry />
		{:else if deed === 'split'}
			<label class="flex flex-col gap-1"
				>By <select class="select" bind:value={rule}
					>{#each rules as [value, words] (value)}<option {value}>{words}</option>{/each}</select
				></label
			>
			<p class="mute">
				Each value gets a category under {called}, and the questions that stand in it go there. Questions without one
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
