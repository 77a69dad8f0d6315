<script lang="ts">
	import Mark from '$lib/ui/Mark.svelte';
	import type { PageData } from './$types';

	/** What another system has made of a load, told from its own export. */
	let { elsewhere }: { elsewhere: NonNullable<PageData['elsewhere']> } = $props();
</script>

<h2>Against {elsewhere.fileName}</h2>
<p class="mt-2">
	<Mark
		severity={elsewhere.lost.length ? 'broken' : elsewhere.changed.length ? 'doubtful' : 'whole'}
		word="{elsewhere.same} the same, {elsewhere.changed.length} changed, {elsewhere.lost.length} lost there, {elsewhere
			.more.length} only there"
	/>
</p>
{#each [['Lost there', elsewhere.lost], ['Only there', elsewhere.more]] as const as [title, list] (title)}
	{#if list.length}<h3 class="mt-4">{title}</h3>
		<ul>
			{#each list.slice(0, 500) as name, at (at)}<li>{name}</li>{/each}
		</ul>{/if}
{/each}
{#if elsewhere.changed.length}<h3 class="mt-4">Changed there</h3>
	<ul>
		{#each elsewhere.changed.slice(0, 500) as question, at (at)}<li>
				{question.title} <span class="mute text-[13px]">{question.parts.join(', ')}</span>
			</li>{/each}
	</ul>{/if}
