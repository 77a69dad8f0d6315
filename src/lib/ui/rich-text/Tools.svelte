<script lang="ts">
	import type { Editor } from '@tiptap/core';
	import Bold from '@lucide/svelte/icons/bold';
	import Code from '@lucide/svelte/icons/code';
	import ImagePlus from '@lucide/svelte/icons/image-plus';
	import Italic from '@lucide/svelte/icons/italic';
	import List from '@lucide/svelte/icons/list';
	import ListOrdered from '@lucide/svelte/icons/list-ordered';
	import Redo from '@lucide/svelte/icons/redo-2';
	import Sigma from '@lucide/svelte/icons/sigma';
	import Subscript from '@lucide/svelte/icons/subscript';
	import Superscript from '@lucide/svelte/icons/superscript';
	import Table from '@lucide/svelte/icons/table';
	import Underline from '@lucide/svelte/icons/underline';
	import Undo from '@lucide/svelte/icons/undo-2';
	import FormulaBox from './FormulaBox.svelte';

	/** What can be done to the text in an editor, over the box while one writes in it. */
	let {
		editor,
		moves,
		source,
		picture,
		toggle,
		writing = $bindable()
	}: {
		editor: Editor | null;
		/** Changes whenever the editor has moved. */
		moves: number;
		/** The source is shown, and not the text. */
		source: boolean;
		/** Takes a picture; null where none can be handed in. */
		picture: ((file: File) => void) | null;
		toggle: () => void;
		/** A formula is being written, which is not lost where one looks elsewhere meanwhile. */
		writing: boolean;
	} = $props();

	const marks = [
		['bold', 'Bold', Bold],
		['italic', 'Italic', Italic],
		['underlined', 'Underlined', Underline],
		['above', 'Above the line', Superscript],
		['below', 'Below the line', Subscript]
	] as const;
	const isOn = (name: string) => moves >= 0 && (editor?.isActive(name) ?? false);
	const inTable = $derived(moves >= 0 && (editor?.isActive('table') ?? false));
	/** The box keeps its place while a tool is pressed. */
	const stay = (event: MouseEvent) => event.preventDefault();
</script>

<div class="tools" role="toolbar" aria-label="Text">
	{#if editor}
		{#each marks as [name, words, Icon] (name)}<button
				type="button"
				aria-label={words}
				title={words}
				aria-pressed={isOn(name)}
				onmousedown={stay}
				onclick={() => editor.chain().focus().toggleMark(name).run()}><Icon size={14} /></button
			>{/each}
		<button
			type="button"
			aria-label="List"
			title="List"
			aria-pressed={isOn('bulletList')}
			onmousedown={stay}
			onclick={() => editor.chain().focus().toggleBulletList().run()}><List size={14} /></button
		>
		<button
			type="button"
			aria-label="Numbered list"
			title="Numbered list"
			aria-pressed={isOn('orderedList')}
			onmousedown={stay}
			onclick={() => editor.chain().focus().toggleOrderedList().run()}><ListOrdered size={14} /></button
		>
		<button
			type="button"
			aria-label="Table"
			title="Table"
			onmousedown={stay}
			onclick={() => editor.chain().focus().insertTable({ rows: 3, cols: 3, withHeaderRow: true }).run()}
			><Table size={14} /></button
		>
		<button
			type="button"
			aria-label="Formula"
			title={isOn('formula') ? 'Change the formula' : 'Formula'}
			aria-pressed={isOn('formula')}
			onmousedown={stay}
			onclick={() => (writing = !writing)}><Sigma size={14} /></button
		>
		{#if picture}<label title="Picture"
				><ImagePlus size={14} /><input
					class="visually-hidden"
					type="file"
					accept="image/*,audio/*,video/*"
					aria-label="Put a picture in"
					onchange={(event) => {
						const file = event.currentTarget.files?.[0];
						if (file) picture(file);
						event.currentTarget.value = '';
					}}
				/></label
			>{/if}
		<button
			type="button"
			aria-label="Take back"
			title="Take back"
			onmousedown={stay}
			onclick={() => editor.chain().focus().undo().run()}><Undo size={14} /></button
		>
		<button
			type="button"
			aria-label="Again"
			title="Again"
			onmousedown={stay}
			onclick={() => editor.chain().focus().redo().run()}><Redo size={14} /></button
		>
	{/if}
	<button
		type="button"
		class="ml-auto"
		aria-label="Source"
		title="Source"
		aria-pressed={source}
		onmousedown={stay}
		onclick={toggle}><Code size={14} /></button
	>
</div>
{#if editor && inTable}
	<div class="tools" role="toolbar" aria-label="Table">
		<button type="button" onmousedown={stay} onclick={() => editor.chain().focus().addRowAfter().run()}>+ row</button>
		<button type="button" onmousedown={stay} onclick={() => editor.chain().focus().addColumnAfter().run()}
			>+ column</button
		>
		<button type="button" onmousedown={stay} onclick={() => editor.chain().focus().deleteRow().run()}>− row</button>
		<button type="button" onmousedown={stay} onclick={() => editor.chain().focus().deleteColumn().run()}
			>− column</button
		>
		<button type="button" onmousedown={stay} onclick={() => editor.chain().focus().deleteTable().run()}>no table</button
		>
	</div>
{/if}
{#if editor && writing}<FormulaBox {editor} close={() => (writing = false)} />{/if}

<style>
	.tools {
		display: flex;
		flex-wrap: wrap;
		gap: 2px;
		padding: 2px 0;
	}
	button,
	label {
		display: inline-grid;
		place-items: center;
		min-width: 26px;
		height: 24px;
		padding: 0 4px;
		border-radius: 4px;
		cursor: pointer;
		font-size: 12.5px;
		color: var(--ink2);
	}
	button:hover,
	label:hover,
	button[aria-pressed='true'] {
		background: var(--woad-soft);
		color: var(--ink);
	}
	label:focus-within {
		outline: 2px solid var(--woad);
	}
</style>
