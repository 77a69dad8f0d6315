<script lang="ts">
	import { plainText } from '$core/markup/text';
	import type { Question } from '$core/kinds';
	import { kindOf } from '$core/kinds';
	import type { StoredQuestion } from '$lib/server/banks/banks';
	import { differingWords } from './differing';
	import { enhance } from '$lib/ui/refresh';

	/** Two questions that are nearly the same, side by side, with the words lit in which they differ. */
	let {
		check,
		stored,
		partner,
		mayChange
	}: { check: string; stored: StoredQuestion; partner: StoredQuestion; mayChange: boolean } = $props();

	const linesOf = (question: Question) => [
		plainText(question.stem),
		...kindOf(question)
			.parts(question)
			.filter(({ text }) => text)
			.map(({ name, text }) => `${name}: ${text}`)
	];
	const sides = $derived(
		[
			[stored, partner],
			[partner, stored]
		].map(([own, other]) => ({
			own: own!,
			other: other!,
			lines: linesOf(own!.question).map((line) => differingWords(line, linesOf(other!.question).join(' ')))
		}))
	);
	let reason = $state('');
</script>

<div class="pair">
	{#each sides as { own, other, lines }, side (own.id)}
		<section aria-label={side ? 'The other' : 'This one'}>
			<p class="mute text-[12.5px]">
				{side ? 'The other' : 'This one'}{own.verified ? ', key verified' : ''}
			</p>
			<h3>{own.question.title}</h3>
			{#each lines as line, at (at)}<p class="text-[13.5px]">
					{#each line as piece, place (place)}{#if piece.lit}<mark>{piece.text}</mark>{:else}{piece.text}{/if}{/each}
				</p>{/each}
			{#if mayChange}<form method="POST" action="?/keepThis" use:enhance class="mt-2">
					<input type="hidden" name="kept" value={own.id} /><input type="hidden" name="other" value={other.id} />
					<button class="btn btn-sm preset-outlined-brand"
						>Keep {side ? 'the other' : 'this'}, the rest to the bin</button
					>
				</form>{/if}
		</section>
	{/each}
</div>
{#if mayChange}<form method="POST" action="?/both" use:enhance class="mt-3 flex gap-2">
		<input type="hidden" name="check" value={check} /><input type="hidden" name="question" value={stored.id} /><input
			type="hidden"
			name="other"
			value={partner.id}
		/>
		<input
			class="input flex-1"
			name="reason"
			maxlength="1000"
			placeholder="why both are meant"
			aria-label="Why both are meant"
			bind:value={reason}
		/>
		<button class="btn btn-sm preset-filled-brand">Keep both</button>
	</form>{/if}

<style>
	.pair {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 12px;
	}
	section {
		border: 1px solid var(--line2);
		border-radius: 6px;
		padding: 8px 10px;
		overflow-wrap: anywhere;
	}
	mark {
		background: color-mix(in srgb, var(--weld) 34%, transparent);
		color: inherit;
	}
</style>
