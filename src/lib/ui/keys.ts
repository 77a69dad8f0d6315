/** Whether somebody is typing where a key was pressed: in a field, a list to choose from, or rich text. Then no key does anything else. */
export function isTyping(event: KeyboardEvent): boolean {
	const target = event.target as HTMLElement | null;
	return (
		event.isComposing ||
		!!target?.closest?.(
			'input:not([type=checkbox], [type=radio], [type=button]), select, textarea, [contenteditable]:not([contenteditable=false]), [role=textbox]'
		)
	);
}

/** Whether a key is none of ours: with a modifier, while somebody types, or under an open dialog. */
export function isNoShortcut(event: KeyboardEvent): boolean {
	return event.ctrlKey || event.metaKey || event.altKey || isTyping(event) || !!document.querySelector('dialog[open]');
}
