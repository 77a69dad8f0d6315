<script lang="ts">
	import { isChoice, type Question } from '$core/model/question';
	import RichText from './RichText.svelte';
	import { untrack } from 'svelte';

	/** A question to be set right by hand. What has no field of its own can be written in the published JSON form. */
	let {
		question,
		courseId,
		busy,
		failure,
		save,
		cancel
	}: {
		question: Question;
		courseId: number;
		busy: boolean;
		failure: string;
		save: (question: unknown) => void;
		cancel: () => void;
	} = $props();

	let draft = $state(untrack(() => structuredClone($state.snapshot(question)) as Question));
	let whole = $state(false);
	let json = $state('');
	let fault = $state('');
	const attachments = $derived(draft.attachments);
	const percent = (credit: number) => Math.round(credit * 100_000) / 1000;
	const share = (text: string) => Math.max(-1, Math.min(1, (Number(text) || 0) / 100));
	const fresh = (used: string[]) => {
		let number = used.length + 1;
		while (used.includes(`N${number}`)) number += 1;
		return `N${number}`;
	};
	const number = (text: string) => (text.trim() === '' ? null : Number(text.replace(',', '.')));
	const bare = () => {
		const {
			source: _source,
			attachments: _attachments,
			removed: _removed,
			...rest
		} = $state.snapshot(draft) as Question;
		return rest;
	};
	function give() {
		fault = '';
		if (!whole) return save($state.snapshot(draft));
		try {
			save({
				...(JSON.parse(json) as object),
				source: draft.source,
				attachments: draft.attachments,
				removed: draft.removed
			});
		} catch (error) {
			fault = `This is no well-formed JSON: ${(error as Error).message}`;
		}
	}
</script>

<div class="flex flex-col gap-3">
	{#if whole}
		<label
			>All of the question, in the form of docs/question.schema.json
			<textarea class="field mono w-full" rows="22" spellcheck="false" bind:value={json}></textarea></label
		>
	{:else}
		<div class="flex gap-3">
			<label class="flex-1">Title <input class="field w-full" maxlength="500" bind:value={draft.title} /></label>
			<label class="flex flex-col"
				>Points
				<input
					class="field w-20"
					type="number"
					min="0"
					step="any"
					value={draft.points ?? ''}
					onchange={(event) => (draft.points = number(event.currentTarget.value))}
				/></label
			>
		</div>
		<div>
			<p>Stem</p>
			<RichText bind:value={draft.stem} {attachments} {courseId} label="Stem" />
		</div>
		{#if isChoice(draft)}
			<div>
				<p class="flex justify-between"><span>Options</span><span class="mute">credit in percent</span></p>
				{#each draft.options as option, at (option.identifier)}
					<div class="line">
						<RichText bind:value={option.text} {attachments} {courseId} label="Option {at + 1}" small />
						<input
							class="field credit"
							type="number"
							min="-100"
							max="100"
							step="any"
							aria-label="Credit of option {at + 1}"
							value={percent(option.credit)}
							onchange={(event) => (option.credit = share(event.currentTarget.value))}
						/>
						<button
							type="button"
							class="button small ghost"
							aria-label="Option {at + 1} is right"
							title="it is right, and no other is"
							onclick={() => {
								if (draft.kind === 'multiple-response') option.credit = 1;
								else if (isChoice(draft)) for (const one of draft.options) one.credit = one === option ? 1 : 0;
							}}>key</button
						>
						<button
							type="button"
							class="button small ghost"
							aria-label="Take option {at + 1} out"
							onclick={() => isChoice(draft) && draft.options.splice(at, 1)}>×</button
						>
					</div>
				{/each}
				<button
					type="button"
					class="button small ghost mt-2"
					onclick={() =>
						isChoice(draft) &&
						draft.options.push({
							identifier: fresh(draft.options.map((one) => one.identifier)),
							text: '',
							credit: 0,
							pinned: false
						})}>Add an option</button
				>
			</div>
		{:else if draft.kind === 'short-answer'}
			<div>
				<p class="flex justify-between"><span>Accepted answers</span><span class="mute">credit in percent</span></p>
				{#each draft.accepted as one, at (at)}
					<div class="line">
						<input class="field flex-1" aria-label="Accepted answer {at + 1}" bind:value={one.text} />
						<label class="whitespace-nowrap"
							><input type="checkbox" bind:checked={one.caseSensitive} /> capitals count</label
						>
						<input
							class="field credit"
							type="number"
							step="any"
							aria-label="Credit of answer {at + 1}"
							value={percent(one.credit)}
							onchange={(event) => (one.credit = share(event.currentTarget.value))}
						/>
						<button
							type="button"
							class="button small ghost"
							aria-label="Take answer {at + 1} out"
							onclick={() => draft.kind === 'short-answer' && draft.accepted.splice(at, 1)}>×</button
						>
					</div>
				{/each}
				<button
					type="button"
					class="button small ghost mt-2"
					onclick={() =>
						draft.kind === 'short-answer' && draft.accepted.push({ text: '', credit: 1, caseSensitive: false })}
					>Add an answer</button
				>
			</div>
		{:else if draft.kind === 'numeric'}
			<div>
				<p>Accepted numbers</p>
				{#each draft.accepted as one, at (at)}
					<div class="line">
						{#if 'value' in one}
							<input
								class="field credit"
								type="number"
								step="any"
								aria-label="Number {at + 1}"
								bind:value={one.value}
							/>
							give or take
							<input
								class="field credit"
								type="number"
								min="0"
								step="any"
								aria-label="Tolerance {at + 1}"
								bind:value={one.tolerance}
							/>
						{:else}
							from <input
								class="field credit"
								type="number"
								step="any"
								aria-label="Least number {at + 1}"
								bind:value={one.min}
							/>
							to
							<input
								class="field credit"
								type="number"
								step="any"
								aria-label="Greatest number {at + 1}"
								bind:value={one.max}
							/>
						{/if}
						<input
							class="field credit"
							type="number"
							step="any"
							aria-label="Credit of number {at + 1}"
							value={percent(one.credit)}
							onchange={(event) => (one.credit = share(event.currentTarget.value))}
						/>
						%
						<button
							type="button"
							class="button small ghost"
							aria-label="Take number {at + 1} out"
							onclick={() => draft.kind === 'numeric' && draft.accepted.splice(at, 1)}>×</button
						>
					</div>
				{/each}
				<button
					type="button"
					class="button small ghost mt-2"
					onclick={() => draft.kind === 'numeric' && draft.accepted.push({ value: 0, tolerance: 0, credit: 1 })}
					>Add a number</button
				>
			</div>
		{:else if draft.kind === 'ordering'}
			<div>
				<p>In the right order</p>
				{#each draft.items as one, at (one.identifier)}
					<div class="line">
						<RichText bind:value={one.text} {attachments} {courseId} label="Place {at + 1}" small />
						<button
							type="button"
							class="button small ghost"
							disabled={at === 0}
							aria-label="Place {at + 1} one up"
							onclick={() => draft.kind === 'ordering' && draft.items.splice(at - 1, 2, one, draft.items[at - 1]!)}
							>↑</button
						>
					</div>
				{/each}
			</div>
		{:else if draft.kind === 'matching'}
			<div>
				<p>Pairs</p>
				{#each draft.left as one, at (one.identifier)}
					<div class="line">
						<RichText bind:value={one.text} {attachments} {courseId} label="Left {at + 1}" small />
						<select
							class="field"
							aria-label="What left {at + 1} belongs to"
							value={draft.pairs.find((pair) => pair.left === one.identifier)?.right ?? ''}
							onchange={(event) => {
								if (draft.kind !== 'matching') return;
								const right = event.currentTarget.value;
								const others = draft.pairs.filter((pair) => pair.left !== one.identifier);
								const credit =
									draft.pairs.find((pair) => pair.left === one.identifier)?.credit ?? 1 / draft.left.length;
								draft.pairs = right ? [...others, { left: one.identifier, right, credit }] : others;
							}}
							><option value="">nothing</option>{#each draft.right as other, n (other.identifier)}<option
									value={other.identifier}>right {n + 1}</option
								>{/each}</select
						>
					</div>
				{/each}
				{#each draft.right as one, at (one.identifier)}
					<div class="line">
						<span class="mute whitespace-nowrap">right {at + 1}</span>
						<RichText bind:value={one.text} {attachments} {courseId} label="Right {at + 1}" small />
					</div>
				{/each}
			</div>
		{/if}
		<label
			>Tags <input
				class="field w-full"
				value={draft.tags.join(', ')}
				onchange={(event) =>
					(draft.tags = [
						...new Set(
							event.currentTarget.value
								.split(',')
								.map((tag) => tag.trim())
								.filter(Boolean)
						)
					])}
			/></label
		>
		{#each ['general', 'correct', 'incorrect'] as const as part (part)}
			{#if draft.feedback[part] !== undefined}<div>
					<p>Feedback, {part}</p>
					<RichText bind:value={draft.feedback[part]} {attachments} {courseId} label="Feedback, {part}" small />
				</div>{/if}
		{/each}
	{/if}
	{#if fault || failure}<p class="broken" role="alert">{fault || failure}</p>{/if}
	<div class="flex items-center gap-2">
		<button type="button" class="button small" disabled={busy} onclick={give}>Keep this</button>
		<button type="button" class="button small ghost" onclick={cancel}>Leave it as it was</button>
		<button
			type="button"
			class="word ml-auto text-[13px]"
			onclick={() => {
				if (!whole) json = JSON.stringify(bare(), null, 2);
				whole = !whole;
			}}>{whole ? 'In fields' : 'All of it'}</button
		>
	</div>
</div>

<style>
	.line {
		display: flex;
		align-items: center;
		gap: 6px;
		padding-top: 5px;
	}
	.credit {
		width: 74px;
		flex: none;
	}
	label,
	div > p {
		color: var(--ink2);
		font-size: 13px;
	}
	.word {
		cursor: pointer;
		color: var(--woad);
	}
</style>
