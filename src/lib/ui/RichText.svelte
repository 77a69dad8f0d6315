<script lang="ts">
	import type { Editor } from '@tiptap/core';
	import type { Attachment, Markup } from '$core/model/question';
	import { getContext, onDestroy, tick } from 'svelte';
	import { fromEditor, losesNothing, toEditor } from './rich-text/convert';
	import PlainBox from './rich-text/PlainBox.svelte';
	import { handInKey, type HandIn } from './rich-text/hand-in';
	import Tools from './rich-text/Tools.svelte';

	/**
	 * Rich text to be written in. The editor comes once one begins to write; where it could not give back all that the text
	 * holds, it is written in a plainer box, or as source.
	 */
	let {
		value = $bindable(),
		attachments,
		courseId,
		label,
		small = false
	}: { value: Markup; attachments: Attachment[]; courseId: number; label: string; small?: boolean } = $props();

	const handIn = getContext<HandIn | undefined>(handInKey);
	const addressOf = (hash: string, type: string) => `/courses/${courseId}/files/${hash}?as=${encodeURIComponent(type)}`;
	let box: HTMLDivElement | undefined = $state();
	let editor = $state.raw<Editor | null>(null);
	/** Goes up whenever the editor has moved, so that its tools show what is on. */
	let moves = $state(0);
	let plain = $state(false);
	let source = $state(false);
	let inside = $state(false);
	let pressed = false;
	/** The tools go once one has left; what is pressed outside stays where it is until it is let go, or the press would miss it. */
	function left(field: Element) {
		const go = () => {
			if (!field.contains(document.activeElement)) inside = false;
		};
		if (pressed) addEventListener('pointerup', () => setTimeout(go), { once: true });
		else setTimeout(go);
	}
	let writing = $state(false);
	let written: Markup | null = null;
	/** The field is taken off the page; what its editor still says as it goes is nothing any more. */
	let gone = false;

	async function begin() {
		if (editor || plain || source) return;
		const { makeEditor } = await import('./rich-text/editor');
		if (editor || !box) return;
		const content = toEditor(value, attachments, addressOf);
		const made = makeEditor({
			box,
			content,
			label,
			changed: (now) => {
				if (!gone) written = value = fromEditor(now.view.dom);
			},
			files: (files) => take(files),
			left: () => {
				if (!gone) moves += 1;
			},
			moved: () => {
				if (!gone) moves += 1;
			}
		});
		if (!losesNothing(value, fromEditor(made.view.dom))) {
			made.destroy();
			plain = true;
			return;
		}
		editor = made;
		written = value;
		await tick();
		made.commands.focus('end');
	}
	/** Pictures that are dropped or pasted are handed in, and put where one writes. */
	function take(files: File[]): boolean {
		const wanted = files.filter(({ type }) => /^(image|audio|video)\//.test(type));
		if (!wanted.length || !handIn) return false;
		void (async () => {
			for (const file of wanted) {
				const attachment = await handIn(file);
				if (!attachment?.hash) continue;
				const content = attachment.mediaType.startsWith('image/')
					? {
							type: 'picture',
							attrs: { src: addressOf(attachment.hash, attachment.mediaType), alt: '', 'data-media': attachment.name }
						}
					: { type: 'sound', attrs: { 'data-media': attachment.name } };
				editor?.chain().focus().insertContent(content).run();
			}
		})();
		return true;
	}
	// what was changed from elsewhere, as by a draft that is taken up, is shown
	$effect(() => {
		if (!gone && editor && value !== written) {
			written = value;
			editor.commands.setContent(toEditor(value, attachments, addressOf), { emitUpdate: false });
		}
	});
	onDestroy(() => {
		gone = true;
		editor?.destroy();
	});
	const shown = $derived(
		editor || plain || source || typeof document === 'undefined' ? '' : toEditor(value, attachments, addressOf)
	);
</script>

<svelte:window
	onpointerdowncapture={() => (pressed = true)}
	onpointerupcapture={() => (pressed = false)}
	onpointercancelcapture={() => (pressed = false)}
/>
<div
	class="rich-field"
	onfocusin={() => (inside = true)}
	onfocusout={({ currentTarget, relatedTarget }) => {
		if (!currentTarget.contains(relatedTarget as Node | null)) left(currentTarget);
	}}
>
	{#if (inside || writing) && (editor || source || plain)}<Tools
			{editor}
			{moves}
			{source}
			bind:writing
			picture={handIn ? (file) => void take([file]) : null}
			toggle={() => {
				source = !source;
				writing = false;
				editor?.destroy();
				editor = null;
				plain = false;
			}}
		/>{/if}
	{#if source}<textarea
			class="textarea mono w-full"
			rows={small ? 3 : 8}
			spellcheck="false"
			aria-label="Source of {label}"
			bind:value></textarea>
	{:else if plain}<PlainBox bind:value {attachments} {courseId} {label} {small} />
	{:else}
		<div bind:this={box} class="input box rich" class:small>
			{#if !editor}<div
					role="textbox"
					aria-multiline="true"
					aria-label={label}
					tabindex="0"
					class="asleep"
					onfocus={begin}
					onpointerdown={begin}
				>
					<!-- cleaned by core/markup before it was stored, and there is a content security policy besides -->
					<!-- eslint-disable-next-line svelte/no-at-html-tags -->
					{@html shown}
				</div>{/if}
		</div>
	{/if}
</div>

<style>
	.rich-field {
		width: 100%;
		min-width: 0;
	}
	.box {
		width: 100%;
		min-height: 62px;
		padding: 6px 10px;
		overflow: auto;
		max-height: 340px;
	}
	.box.small {
		min-height: 30px;
		padding-block: 3px;
	}
	.asleep {
		min-height: 20px;
		outline: none;
	}
	.box:focus-within {
		outline: 2px solid var(--woad);
		outline-offset: 1px;
	}
	.box :global(.tiptap) {
		outline: none;
		min-height: 20px;
		white-space: pre-wrap;
	}
	.box :global(.tiptap > * + *) {
		margin-top: 6px;
	}
	.box :global(table) {
		border-collapse: collapse;
	}
	.box :global(td),
	.box :global(th) {
		border: 1px solid var(--line2);
		padding: 2px 7px;
		min-width: 34px;
	}
	.box :global(.blank),
	.box :global(.sound) {
		background: var(--woad-soft);
		border-radius: 3px;
		padding: 0 4px;
	}
	.box :global(.ProseMirror-selectednode) {
		outline: 2px solid var(--weld);
	}
	.box :global(img) {
		max-width: 100%;
	}
</style>
