<script lang="ts">
	import type { Blank, FillBlanksQuestion } from '$core/kinds';
	import { acceptedNumberText } from '$core/kinds/answers';
	import { plainText } from '$core/markup/text';
	import { ownValue } from '$core/model/lookup';
	import { visible } from '$core/markup/visible';
	import { percentOf } from '../../percent';
	import type { Showing } from '../showing';
	import { creditInWords } from './credit';

	/** The blanks of a question, what is right in each, or the boxes to fill them in. */
	let { question, mode, answer, onanswer }: Showing<FillBlanksQuestion> = $props();

	const wordOf = (identifier: string) =>
		plainText(question.bank.find((word) => word.identifier === identifier)?.text ?? '');
	const matched = { pattern: 'pattern ', contains: 'contains ' };
	function rightOf(blank: Blank): string {
		if (blank.form === 'text')
			return blank.accepted
				.filter((entry) => entry.credit > 0)
				.map(
					({ match, text, credit }) =>
						`${match ? matched[match] : ''}${visible(text)}${credit < 1 ? ` (${creditInWords(credit)})` : ''}`
				)
				.join(', ');
		if (blank.form === 'number') return blank.accepted.map(acceptedNumberText).join(', ');
		if (blank.form === 'open') return 'written at length, marked by a person';
		const right =
			blank.form === 'word'
				? blank.words.filter((word) => word.credit > 0).map((word) => wordOf(word.word))
				: blank.entries.filter((entry) => entry.credit > 0).map((entry) => plainText(entry.text));
		return right.join(', ');
	}
	function fill(identifier: string, values: string[]) {
		onanswer({ ...answer, blanks: { ...answer.blanks, [identifier]: values } });
	}
	const filled = (identifier: string) => ownValue(answer.blanks, identifier) ?? [];
</script>

<table class="table mt-3">
	<tbody>
		{#each question.blanks as blank, at (blank.identifier)}
			<tr>
				<td class="number"><span class="place">{at + 1}</span></td>
				<td>
					{#if mode === 'key'}<span class="whole">{rightOf(blank) || 'nothing is right here'}</span>
						{#if blank.form === 'list'}<span class="faint block text-[13px]"
								>from: {blank.entries.map((one) => plainText(one.text)).join(', ')}</span
							>{/if}
					{:else if blank.form === 'list' && blank.several}
						{#each blank.entries as entry (entry.identifier)}
							<label class="block"
								><input
									type="checkbox"
									checked={filled(blank.identifier).includes(entry.identifier)}
									onchange={(event) =>
										fill(
											blank.identifier,
											event.currentTarget.checked
												? [...filled(blank.identifier), entry.identifier]
												: filled(blank.identifier).filter((one) => one !== entry.identifier)
										)}
								/>
								{plainText(entry.text)}</label
							>
						{/each}
					{:else if blank.form === 'list' || blank.form === 'word'}
						{@const entries = blank.form === 'list' ? blank.entries : question.bank}
						<select
							class="select"
							aria-label="Blank {at + 1}"
							value={filled(blank.identifier)[0] ?? ''}
							onchange={(event) => fill(blank.identifier, [event.currentTarget.value].filter(Boolean))}
						>
							<option value="">…</option>
							{#each entries as entry (entry.identifier)}<option value={entry.identifier}
									>{plainText(entry.text)}</option
								>{/each}
						</select>
					{:else}
						<input
							class="input"
							aria-label="Blank {at + 1}"
							value={filled(blank.identifier)[0] ?? ''}
							oninput={(event) => fill(blank.identifier, [event.currentTarget.value])}
						/>
					{/if}
				</td>
				<td class="number mute">{mode === 'key' && question.combination === 'sum' ? percentOf(blank.share) : ''}</td>
			</tr>
		{/each}
	</tbody>
</table>
{#if question.bank.length}<p class="mute mt-2 text-[13px]">
		Words: {question.bank.map((word) => plainText(word.text)).join(', ')}
	</p>{/if}
{#if mode === 'key' && question.combination === 'all'}<p class="mute mt-2 text-[13px]">
		All of them have to be right; else there are no points.
	</p>{/if}

<style>
	.place {
		display: inline-block;
		min-width: 1.6em;
		padding: 0 4px;
		border-bottom: 2px solid var(--woad);
		text-align: center;
	}
</style>
