<script lang="ts">
	import type { Editing } from '../editing';
	import type { OrderingQuestion } from '$core/kinds';
	import RichText from '../../RichText.svelte';
	import List from './List.svelte';

	/** Things in their right order. */
	let { question = $bindable(), attachments, courseId }: Editing<OrderingQuestion> = $props();
</script>

<List bind:items={question.items} what="place" head="In the right order">
	{#snippet line(item: OrderingQuestion['items'][number], at: number)}
		<span class="mute">{at + 1}</span>
		<RichText bind:value={item.text} {attachments} {courseId} label="Place {at + 1}" small />
		<button
			type="button"
			class="btn btn-sm preset-outlined-brand"
			disabled={at === 0}
			aria-label="Place {at + 1} one up"
			onclick={() => question.items.splice(at - 1, 2, item, question.items[at - 1]!)}>↑</button
		>
	{/snippet}
</List>
