<script lang="ts">
	import { kindName, kindNamed, kinds, type Question } from '$core/kinds';
	import type { MadeKind } from '$core/kinds/blank';
	import { changeKind } from '$core/kinds/change-kind';
	import type { Attachment } from '$core/model/question';
	import { interfaceOf } from './kinds';
	import NumberField from './NumberField.svelte';
	import { keepDraft } from './drafts';
	import RichText from './RichText.svelte';
	import Earns from './question-editor/Earns.svelte';
	import LiveSnags from './question-editor/LiveSnags.svelte';
	import MoreFields from './question-editor/MoreFields.svelte';
	import PictureField from './question-editor/PictureField.svelte';
	import { handInKey } from './rich-text/hand-in';
	import { setContext, untrack } from 'svelte';

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
		handIn,
		upload,
		snags,
		rekind
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
		/** Stores a file for the question; pictures can be put into its texts where that is given. */
		upload?: (file: File) => Promise<Attachment | null>;
		/** Says what is wrong with what is being written, as one writes. */
		snags?: boolean;
		/** Its kind can be changed. */
		rekind?: boolean;
	} = $props();

	const madeKinds = kinds.filter((kind): kind is MadeKind => kind !== 'unreadable');
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
	let goes = $state<string[]>([]);
	const store = untrack(() => upload);
	if (store)
		setContext(handInKey, async (file: File) => {
			const stored = await store(file);
			if (stored) draft.attachments = [...draft.attachments.filter(({ name }) => name !== stored.name), stored];
			return stored;
		});
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
	{#each handIn ? attachments.filter(({ missing }) => missing) : [] as lost (lost.name)}
		<label class="missing"
			>{lost.name} did not come along. Hand it in:
			<input
				class="input w-full"
				type="file"
				accept="image/*,audio/*,video/*,application/pdf"
				disabled={busy}
				onchange={(event) => {
					const file = event.currentTarget.files?.[0];
					if (file) handIn!(lost.name, file);
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
		{#if rekind}
			<label
				>Kind
				<select
					class="select w-full"
					value={draft.kind}
					onchange={(event) => {
						const changed = changeKind($state.snapshot(draft) as Question, event.currentTarget.value as MadeKind);
						draft = changed.question;
						goes = changed.goes;
					}}
					>{#each madeKinds as kind (kind)}<option value={kind}>{kindName(kind)}</option>{/each}</select
				></label
			>
			{#if goes.length}<p class="doubtful" role="status">What goes: {goes.join('; ')}.</p>{/if}
		{/if}
		<div class="flex gap-3">
			<label class="flex-1">Title <input class="input w-full" maxlength="500" bind:value={draft.title} /></label>
			<label class="flex flex-col"
				>Points
				<NumberField live width="80px" label="Points" bind:value={draft.points} /></label
			>
		</div>
		<div>
			<p>Stem</p>
			<RichText bind:value={draft.stem} {attachments} {courseId} label="Stem" />
		</div>
		{#if 'picture' in draft}<PictureField bind:question={draft} {attachments} {courseId} />{/if}
		{#if Edit}<Edit bind:question={draft} {attachments} {courseId} />{/if}
		<MoreFields bind:question={draft} {attachments} {courseId} />
		{#if kindNamed(draft.kind).marks === 'program'}<Earns question={draft} />{/if}
		{#if snags}<LiveSnags question={draft} />{/if}
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
