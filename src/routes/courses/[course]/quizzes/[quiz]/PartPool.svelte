<script lang="ts">
	import type { CategoryNode } from '$lib/server/banks/tree';
	import type { Part } from '$lib/server/quizzes/quiz';
	import CategoryTree from '$lib/ui/CategoryTree.svelte';
	import Toggle from '$lib/ui/Toggle.svelte';
	import { count, figure } from '$lib/ui/words';

	/** What a part of a quiz draws from, and in which order it is given. */
	let {
		part,
		pool,
		tree,
		mayChange
	}: { part: Part; pool: readonly number[]; tree: CategoryNode[]; mayChange: boolean } = $props();

	const nodes = $derived(
		tree.map((node) => ({
			id: String(node.id),
			parentId: node.parentId === null ? null : String(node.parentId),
			name: node.name,
			node
		}))
	);
	let looked = $state('');
	const digits = $derived(Math.max(1, ...tree.map(({ all }) => figure(all).length)));
	function take(id: number, on: boolean) {
		part.categories = on ? [...part.categories, id] : part.categories.filter((other) => other !== id);
	}
</script>

<h2>{part.title || 'This part'}: pool</h2>
<p class="mute mt-1">
	{count(pool.length, 'question')} to draw from. Unreadable questions are left out, and texts without an answer where a part
	draws.
</p>
{#if part.questions.length}
	<p class="notice">
		This part names its questions, as the package did that it came in. {#if mayChange}<button
				type="button"
				class="word"
				onclick={() => (part.questions = [])}>Draw from categories instead</button
			>{/if}
	</p>
{:else}
	<div class="my-2">
		<Toggle bind:on={part.withUnder} disabled={!mayChange} label="with what is under each" />
	</div>
	{#if nodes.length}
		<CategoryTree
			{nodes}
			chosen={looked}
			choose={(id) => (looked = id)}
			label="What it draws from"
			columns="max({digits}ch, 30px)"
		>
			{#snippet head()}<span>Category</span><span class="text-right">Q</span>{/snippet}
			{#snippet line({ id, name, node }: (typeof nodes)[number])}
				<!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_noninteractive_element_interactions -->
				<label class="flex min-w-0 items-center gap-2" onclick={(event) => event.stopPropagation()}>
					<input
						type="checkbox"
						class="checkbox"
						disabled={!mayChange}
						checked={part.categories.includes(Number(id))}
						onchange={(event) => take(Number(id), event.currentTarget.checked)}
					/>
					<span class="cut" class:font-bold={node.id < 0} title={name}>{name}</span>
				</label>
				<span class="mute text-right">{figure(part.withUnder ? node.all : node.own)}</span>
			{/snippet}
		</CategoryTree>
	{:else}<p class="mute">This course has no bank yet.</p>{/if}
{/if}
<h3 class="mt-5">Order</h3>
<div class="mt-1">
	<Toggle bind:on={part.shuffleQuestions} disabled={!mayChange} label="shuffle the questions" />
</div>
<div class="mt-1">
	<Toggle
		bind:on={part.shuffleOptions}
		disabled={!mayChange}
		label="shuffle the options; pinned ones stay, and questions that forbid it"
	/>
</div>
