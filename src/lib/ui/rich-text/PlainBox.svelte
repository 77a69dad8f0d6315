<script lang="ts">
	import { displayMarkup } from '$core/markup/display';
	import type { Attachment, Markup } from '$core/model/question';

	/** Rich text to be written in: bold, italics and the rest by the usual keys; pictures and blanks stay where they are. */
	let {
		value = $bindable(),
		attachments,
		courseId,
		label,
		small = false
	}: { value: Markup; attachments: Attachment[]; courseId: number; label: string; small?: boolean } = $props();

	let box: HTMLDivElement | undefined = $state();
	let written: string | null = null;
	const addressOf = (hash: string, type: string) => `/courses/${courseId}/files/${hash}?as=${encodeURIComponent(type)}`;

	/** The text for the screen: pictures have their address, and carry their name so that they are found again. */
	function shown(markup: Markup): string {
		const held = document.createElement('div');
		held.innerHTML = displayMarkup(markup, attachments, addressOf);
		const names = [...markup.matchAll(/="media:([^"]*)"/g)].map((found) => found[1]!);
		held.querySelectorAll('img, object').forEach((node, at) => node.setAttribute('data-media', names[at] ?? ''));
		for (const blank of held.querySelectorAll('.blank')) {
			blank.setAttribute('contenteditable', 'false');
			blank.textContent = `[${blank.id}]`;
		}
		return held.innerHTML;
	}
	function taken(): Markup {
		const held = document.createElement('div');
		held.innerHTML = box!.innerHTML;
		for (const node of held.querySelectorAll('[data-media]')) {
			node.setAttribute(node.tagName === 'OBJECT' ? 'data' : 'src', `media:${node.getAttribute('data-media')}`);
			node.removeAttribute('data-media');
		}
		for (const blank of held.querySelectorAll('.blank')) {
			blank.removeAttribute('contenteditable');
			blank.textContent = '';
		}
		// as XML, which is what rich text of ours is
		return new XMLSerializer()
			.serializeToString(held)
			.replace(/^<div[^>]*>|<\/div>$|^<div[^>]*\/>$/g, '')
			.replace(/ xmlns="http:\/\/www\.w3\.org\/1999\/xhtml"/g, '');
	}
	/** Fills the box with what it is given, and never with what is being written in it. */
	function filled(node: HTMLElement, given: Markup) {
		const fill = (markup: Markup) => {
			if (markup === written) return;
			node.innerHTML = shown(markup);
			written = markup;
		};
		fill(given);
		return { update: fill };
	}
	function plainPaste(event: ClipboardEvent) {
		event.preventDefault();
		const text = event.clipboardData?.getData('text/plain') ?? '';
		const selection = getSelection();
		if (!selection?.rangeCount) return;
		selection.deleteFromDocument();
		selection.getRangeAt(0).insertNode(document.createTextNode(text));
		selection.collapseToEnd();
		written = value = taken();
	}
</script>

<div
	bind:this={box}
	use:filled={value}
	class="input box rich"
	class:small
	contenteditable="true"
	role="textbox"
	tabindex="0"
	aria-multiline="true"
	aria-label={label}
	oninput={() => (written = value = taken())}
	onpaste={plainPaste}
></div>

<style>
	.box {
		width: 100%;
		min-height: 62px;
		padding: 6px 10px;
		overflow: auto;
		max-height: 240px;
	}
	.box.small {
		min-height: 30px;
		padding-block: 3px;
	}
</style>
