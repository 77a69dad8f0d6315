<script lang="ts">
	import { page } from '$app/state';
	import type { Head } from '$lib/server/snags/heads';
	import Mark from '$lib/ui/Mark.svelte';
	import { figure } from '$lib/ui/words';

	/** The categories, questions or quizzes that snags are gone through by, each with how many it has. */
	let { heads, of, show }: { heads: Head[]; of: string; show: (asks: Record<string, string>) => void } = $props();

	const isChosen = ({ asks }: Head, at: number) => {
		const asked = page.url.searchParams;
		const named = Object.keys(asks).some((name) => asked.has(name));
		return named ? Object.entries(asks).every(([name, value]) => asked.get(name) === value) : at === 0;
	};
</script>

{#each heads as head, at (JSON.stringify(head.asks))}
	{@const chosen = isChosen(head, at)}
	{#if head.within && head.within !== heads[at - 1]?.within && of === 'category'}<h2 class="mt-4 text-[13px]!">
			{head.within}
		</h2>{/if}
	<button type="button" class="head" class:chosen aria-pressed={chosen} onclick={() => show(head.asks)}>
		<span class="min-w-0">
			<span class="cut block" title={head.name}>{head.name || '(no title)'}</span>
			{#if head.within && of !== 'category'}<span class="mute cut block text-[12.5px]">{head.within}</span>{/if}
		</span>
		<Mark severity={head.severity} word={figure(head.snags)} />
	</button>
{:else}<p class="mute mt-4">No {of} has a snag.</p>{/each}

<style>
	.head {
		display: flex;
		justify-content: space-between;
		align-items: baseline;
		gap: 10px;
		width: 100%;
		padding: 5px 8px;
		border-bottom: 1px solid var(--line);
		text-align: left;
		cursor: pointer;
	}
</style>
