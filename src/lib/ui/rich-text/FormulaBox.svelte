<script lang="ts">
	import type { Editor } from '@tiptap/core';
	import Segments from '../Segments.svelte';
	import { formulaOf, formulaOfMathml, writtenIn } from './formula';

	/** Writes a formula in TeX or in MathML: a new one where one writes, or the one that is selected, as it is written. */
	let { editor, close }: { editor: Editor; close: () => void } = $props();

	const forms = [
		{ value: 'TeX', name: 'TeX' },
		{ value: 'MathML', name: 'MathML' }
	] as const;
	// which formula it is about is settled as it opens
	// svelte-ignore state_referenced_locally
	const before = editor.isActive('formula') ? writtenIn(String(editor.getAttributes('formula').math)) : null;
	let form = $state<'TeX' | 'MathML'>(before?.form ?? 'TeX');
	let text = $state(before?.text ?? '');
	let shown = $state('');
	let fault = $state('');

	const made = async () => (form === 'TeX' ? formulaOf(text, false) : formulaOfMathml(text));
	let asked = 0;
	$effect(() => {
		asked += 1;
		const mine = asked;
		if (!text.trim()) {
			shown = fault = '';
			return;
		}
		made().then(
			(math) => {
				if (mine === asked) [shown, fault] = [math, ''];
			},
			(error: unknown) => {
				if (mine === asked) fault = (error as Error).message.replace(/^KaTeX parse error: /, '');
			}
		);
	});
	async function change(to: 'TeX' | 'MathML') {
		if (to === form) return;
		// what was written in TeX goes on in MathML; there is no way back but to what it was
		text = to === 'MathML' ? (fault ? '' : shown) : before?.form === 'TeX' ? before.text : '';
		form = to;
	}
	async function put() {
		try {
			const math = await made();
			editor.chain().focus().insertContent({ type: 'formula', attrs: { math } }).run();
			close();
		} catch (error) {
			fault = (error as Error).message.replace(/^KaTeX parse error: /, '');
		}
	}
	function keys(event: KeyboardEvent) {
		if (event.key === 'Enter' && (form === 'TeX' || event.ctrlKey)) {
			event.preventDefault();
			void put();
		} else if (event.key === 'Escape') {
			event.stopPropagation();
			close();
		}
	}
	const atOnce = (node: HTMLElement) => node.focus();
</script>

<!-- a click beside its fields keeps the text that it belongs to awake -->
<div class="formula-box" role="group" aria-label="Formula" tabindex="-1">
	<div class="flex flex-wrap items-center gap-2">
		<Segments choices={forms} value={form} {change} label="Written in" />
		<span class="ml-auto flex gap-2">
			<button type="button" class="btn btn-sm preset-outlined-brand" onclick={close}>Leave it</button>
			<button type="button" class="btn btn-sm preset-filled-brand" disabled={!text.trim() || fault !== ''} onclick={put}
				>{before ? 'Change it' : 'Put it in'}</button
			>
		</span>
	</div>
	{#if form === 'TeX'}<input
			class="input mono w-full"
			placeholder="\frac{'{a}{b}'}"
			aria-label="Formula in TeX"
			bind:value={text}
			use:atOnce
			onkeydown={keys}
		/>{:else}<textarea
			class="textarea mono w-full"
			rows="4"
			placeholder="<math><mfrac><mi>a</mi><mi>b</mi></mfrac></math>"
			aria-label="Formula in MathML"
			spellcheck="false"
			bind:value={text}
			use:atOnce
			onkeydown={keys}></textarea>{/if}
	{#if fault}<p class="broken text-[12.5px]" role="alert">{fault}</p>
	{:else if shown}<p class="text-[15px]" aria-label="As it is shown">
			<!-- made by the typesetter, or of the elements of MathML alone; nothing in it runs -->
			<!-- eslint-disable-next-line svelte/no-at-html-tags -->
			{@html shown}
		</p>{/if}
</div>

<style>
	.formula-box {
		display: flex;
		flex-direction: column;
		gap: 6px;
		padding: 6px 8px;
		border: 1px solid var(--line2);
		border-radius: 6px;
		margin-bottom: 4px;
	}
</style>
