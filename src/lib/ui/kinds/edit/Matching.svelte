<script lang="ts">
	import type { Editing } from '../editing';
	import type { MatchingQuestion } from '$core/kinds';
	import type { Side } from '$core/model/pieces';
	import RichText from '../../RichText.svelte';
	import { fresh } from './credit';
	import List from './List.svelte';

	/** What stands on the left, what on the right, and what belongs together. */
	let { question = $bindable(), attachments, courseId }: Editing<MatchingQuestion> = $props();

	const rightOf = (left: string) => question.pairs.find((pair) => pair.left === left);
	function belong(left: string, right: string) {
		const credit = rightOf(left)?.credit ?? 1 / question.left.length;
		const others = question.pairs.filter((pair) => pair.left !== left);
		question.pairs = right ? [...others, { left, right, credit }] : others;
	}
	const another = (sides: Side[]): Side => ({
		identifier: fresh([...question.left, ...question.right].map((side) => side.identifier)),
		text: '',
		uses: sides === question.left ? 1 : null
	});
	// what is taken out takes its pairs along
	$effect(() => {
		const known = new Set([...question.left, ...question.right].map((side) => side.identifier));
		if (question.pairs.some((pair) => !known.has(pair.left) || !known.has(pair.right)))
			question.pairs = question.pairs.filter((pair) => known.has(pair.left) && known.has(pair.right));
	});
</script>

<List bind:items={question.left} what="left" head="Pairs" make={() => another(question.left)}>
	{#snippet line(side: Side, at: number)}
		<RichText bind:value={side.text} {attachments} {courseId} label="Left {at + 1}" small />
		<select
			class="select"
			aria-label="What left {at + 1} belongs to"
			value={rightOf(side.identifier)?.right ?? ''}
			onchange={(event) => belong(side.identifier, event.currentTarget.value)}
			><option value="">nothing</option>{#each question.right as other, n (other.identifier)}<option
					value={other.identifier}>right {n + 1}</option
				>{/each}</select
		>
	{/snippet}
</List>
<List bind:items={question.right} what="right" make={() => another(question.right)}>
	{#snippet line(side: Side, at: number)}
		<span class="mute whitespace-nowrap">right {at + 1}</span>
		<RichText bind:value={side.text} {attachments} {courseId} label="Right {at + 1}" small />
	{/snippet}
</List>
