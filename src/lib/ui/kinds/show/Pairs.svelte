<script lang="ts">
	import type { Paired } from '$core/kinds/pairs';
	import { plainText } from '$core/markup/text';
	import type { Side } from '$core/model/pieces';
	import type { Showing } from '../showing';
	import { creditInWords } from './credit';

	/** Things to be put together: `rights` are what is put to each of `lefts`, in words and as rich text. */
	let {
		question,
		lefts,
		rights,
		mode,
		answer,
		onanswer,
		html
	}: {
		question: Paired;
		lefts: Side[];
		rights: { identifier: string; text: string; markup: string }[];
	} & Pick<Showing, 'mode' | 'answer' | 'onanswer' | 'html'> = $props();

	function pair(left: string, right: string, on: boolean) {
		const others = (answer.pairs ?? []).filter(([a, b]) => !(a === left && b === right));
		onanswer({ ...answer, pairs: on ? [...others, [left, right]] : others });
	}
	function only(left: string, right: string) {
		const others = (answer.pairs ?? []).filter(([a]) => a !== left);
		onanswer({ ...answer, pairs: right ? [...others, [left, right]] : others });
	}
</script>

<table class="table mt-3">
	<tbody>
		{#each lefts as left (left.identifier)}
			<tr>
				<!-- eslint-disable svelte/no-at-html-tags -->
				<td class="rich">{@html html(left.text)}</td>
				<td>
					{#if mode === 'key'}
						{#each question.pairs.filter((pair) => pair.left === left.identifier && pair.credit !== 0) as pair (pair.right)}
							<span class="rich {pair.credit > 0 ? 'whole' : 'broken'}"
								>{@html html(rights.find((right) => right.identifier === pair.right)?.markup ?? '?')}</span
							>
							{#if question.combination === 'sum'}<span class="faint">{creditInWords(pair.credit)}</span>{/if}<br />
						{:else}<span class="mute">nothing belongs to it</span>{/each}
					{:else if left.uses === 1}
						<select
							class="select"
							aria-label="What belongs to {plainText(left.text)}"
							value={(answer.pairs ?? []).find(([a]) => a === left.identifier)?.[1] ?? ''}
							onchange={(event) => only(left.identifier, event.currentTarget.value)}
						>
							<option value="">…</option>
							{#each rights as right (right.identifier)}<option value={right.identifier}>{right.text}</option>{/each}
						</select>
					{:else}
						{#each rights as right (right.identifier)}
							<label class="block"
								><input
									type="checkbox"
									checked={(answer.pairs ?? []).some(([a, b]) => a === left.identifier && b === right.identifier)}
									onchange={(event) => pair(left.identifier, right.identifier, event.currentTarget.checked)}
								/>
								{right.text}</label
							>
						{/each}
					{/if}
				</td>
			</tr>
		{/each}
	</tbody>
</table>
