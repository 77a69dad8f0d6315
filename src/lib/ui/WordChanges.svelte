<script lang="ts">
	import { wordDifferences } from '$core/compare/words';
	import type { Question } from '$core/kinds';

	/** How two questions differ in words: what is only in the first is struck out, what is only in the second is marked. */
	let { before, after }: { before: Question; after: Question } = $props();
	const changes = $derived(wordDifferences(before, after));
</script>

{#each changes as { part, stretches } (part)}
	<div class="mt-3">
		<p class="mute text-[13px]">{part}</p>
		<p>
			{#each stretches as stretch, at (at)}{#if stretch.only === 'before'}<del>{stretch.text}</del
					>{:else if stretch.only === 'after'}<ins>{stretch.text}</ins>{:else}{stretch.text}{/if}{/each}
		</p>
	</div>
{:else}<p class="mute">In words they say the same.</p>{/each}

<style>
	del {
		color: var(--madder);
		background: var(--madder-soft);
	}
	ins {
		color: var(--lichen);
		background: var(--lichen-soft);
		text-decoration: none;
		font-weight: 600;
	}
</style>
