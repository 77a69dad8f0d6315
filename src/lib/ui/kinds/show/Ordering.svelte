<script lang="ts">
	import type { OrderingQuestion } from '$core/kinds';
	import { beginning, plainText } from '$core/markup/text';
	import type { Showing } from '../showing';

	/** Things in their right order, or to be put in it. */
	let { question, mode, answer, onanswer, html }: Showing<OrderingQuestion> = $props();

	const order = $derived(answer.order ?? question.presented);
	const textOf = (identifier: string) => question.items.find((item) => item.identifier === identifier)?.text ?? '';
	const wordsOf = (identifier: string) => beginning(plainText(textOf(identifier)), 60);
	function move(at: number, by: number) {
		const next = [...order];
		const [moved] = next.splice(at, 1);
		next.splice(at + by, 0, moved!);
		onanswer({ ...answer, order: next });
	}
</script>

<ol class="order">
	{#each mode === 'key' ? question.items.map((item) => item.identifier) : order as identifier, at (identifier)}
		<li>
			<!-- cleaned by core/markup before it was stored -->
			<!-- eslint-disable-next-line svelte/no-at-html-tags -->
			<span class="rich">{@html html(textOf(identifier))}</span>
			{#if mode === 'try'}
				<button
					type="button"
					class="btn btn-sm preset-outlined-brand"
					disabled={at === 0}
					aria-label="Move “{wordsOf(identifier)}” up"
					onclick={() => move(at, -1)}>↑</button
				>
				<button
					type="button"
					class="btn btn-sm preset-outlined-brand"
					disabled={at === order.length - 1}
					aria-label="Move “{wordsOf(identifier)}” down"
					onclick={() => move(at, 1)}>↓</button
				>
			{/if}
		</li>
	{/each}
</ol>
{#if mode === 'key'}<p class="mute mt-2 text-[13px]">
		{question.rule === 'all' ? 'All in place, or no points.' : 'Each one in its place earns its part.'}
	</p>{/if}

<style>
	.order {
		margin-top: 12px;
		padding-left: 1.6em;
		list-style: decimal;
	}
	.order li {
		padding: 4px 0;
	}
</style>
