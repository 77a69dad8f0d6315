<script lang="ts">
	import type { Question } from '$core/kinds';
	import { interfaceOf } from './kinds';
	import { numberOf } from './kinds/edit/credit';
	import { keepDraft } from './drafts';
	import RichText from './RichText.svelte';
	import { untrack } from 'svelte';

	/** A question to be set right by hand. What has no field of its own can be written in the published JSON form. */
	let {
		question,
		courseId,
		busy,
		failure,
		draftKey,
		version,
		from = null,
		save,
		cancel,
		handIn
	}: {
		question: Question;
		courseId: number;
		busy: boolean;
		failure: string;
		/** Under which what is written is kept until it is saved. */
		draftKey: string;
		version: number;
		/** What was being written before, to go on with. */
		from?: unknown;
		save: (question: unknown) => void;
		cancel: () => void;
		/** Gives a file that the question lacks, by the name under which it speaks of it. */
		handIn?: (name: string, file: File) => void;
	} = $props();

	const before = untrack(() => from as { json?: string } | null);
	let draft = $state(
		untrack(() => structuredClone($state.snapshot(from && !before?.json ? from : question)) as Question)
	);
	let whole = $state(before?.json !== undefined);
	let json = $state(before?.json ?? '');
	// what is written stays in this browser until it is kept or let go, wherever one goes meanwhile
	const first = untrack(() => JSON.stringify(question));
	$effect(() => {
		const now = JSON.stringify(draft);
		const text = json;
		if (whole && text) keepDraft(draftKey, { json: text }, version);
		else if (now !== first) keepDraft(draftKey, JSON.parse(now) as unknown, version);
	});
	let fault = $state('');
	const attachments = $derived(draft.attachments);
	const Edit = $derived(interfaceOf(draft.kind).edit);
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
	{#each handIn ? attachments.filter((one) => one.missing) : [] as one (one.name)}
		<label class="missing"
			>{one.name} did not come along. Hand it in:
			<input
				class="input w-full"
				type="file"
				accept="image/*,audio/*,video/*,application/pdf"
				disabled={busy}
				onchange={(event) => {
					const file = event.currentTarget.files?.[0];
					if (file) handIn!(one.name, file);
				}}
			/></label
		>
	{/each}
	{#if whole}
		<label
			>All of the question, in the form of docs/question.schema.json
			<textarea class="textarea mono w-full" rows="22" spellcheck="false" bind:value={json}></textarea></label
		>
	{:else}
		<div class="flex gap-3">
			<label class="flex-1">Title <input class="input w-full" maxlength="500" bind:value={draft.title} /></label>
			<label class="flex flex-col"
				>Points
				<input
					class="input w-20"
					type="number"
					min="0"
					step="any"
					value={draft.points ?? ''}
					onchange={(event) => (draft.points = numberOf(event.currentTarget.value))}
				/></label
			>
		</div>
		<div>
			<p>Stem</p>
			<RichText bind:value={draft.stem} {attachments} {courseId} label="Stem" />
		</div>
		{#if Edit}<Edit bind:question={draft} {attachments} {courseId} />{/if}
		<label
			>Tags <input
				class="input w-full"
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
		<button type="button" class="btn btn-sm preset-filled-brand" disabled={busy} onclick={give}>Keep this</button>
		<button type="button" class="btn btn-sm preset-outlined-brand" onclick={cancel}>Leave it as it was</button>
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
	.missing {
		padding: 8px;
		border: 1px dashed var(--madder);
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
