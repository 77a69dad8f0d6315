/** A shortcut: its keys, what it does, and where it does it. */
interface Shortcut {
	keys: string;
	does: string;
	scope: 'everywhere' | 'in a list' | 'in a tree' | 'on a question of a bank' | 'on a snag';
}

/** The stations, by the letter that leads to each after a g. */
export const stationKeys = new Map([
	['l', 'loads'],
	['b', 'banks'],
	['s', 'snags'],
	['q', 'quizzes'],
	['d', 'dispatch']
]);

/** All shortcuts: the sheet of the keys shows them, and nothing else is one. */
export const shortcuts: Shortcut[] = [
	{ keys: '?', does: 'this sheet', scope: 'everywhere' },
	{ keys: 'g then l, b, s, q, d', does: 'to Loads, Banks, Snags, Quizzes, Dispatch', scope: 'everywhere' },
	{ keys: '/', does: 'to the search of the page', scope: 'everywhere' },
	{ keys: 'j or ↓', does: 'the next one', scope: 'in a list' },
	{ keys: 'k or ↑', does: 'the one before', scope: 'in a list' },
	{ keys: 'Home, End', does: 'the first, the last', scope: 'in a list' },
	{ keys: '→, ←', does: 'open, shut', scope: 'in a tree' },
	{ keys: 'letters', does: 'to what begins with them', scope: 'in a tree' },
	{ keys: 'v', does: 'the key is right, and on to the next', scope: 'on a question of a bank' },
	{ keys: 'd', does: 'doubt the key', scope: 'on a question of a bank' },
	{ keys: 'e', does: 'edit it', scope: 'on a question of a bank' },
	{ keys: 't', does: 'try it', scope: 'on a question of a bank' },
	{ keys: 'n', does: 'a new question', scope: 'on a question of a bank' },
	{ keys: 'n', does: 'the next snag, of the next check where this one has no more', scope: 'on a snag' },
	{ keys: 'm', does: 'mend this', scope: 'on a snag' },
	{ keys: 'M', does: 'mend all that are listed', scope: 'on a snag' },
	{ keys: 'w', does: 'waive it, with a reason', scope: 'on a snag' },
	{ keys: 'x', does: 'select it, or let it go', scope: 'in a list' },
	{ keys: 'Esc', does: 'leave a field, or close a sheet', scope: 'everywhere' }
];

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

/** Where letters find what begins with them. */
const finders = '[role=tree], [role=listbox], [role=menu]';

/** Whether a key is none of ours: with a modifier, while somebody types or looks for a letter, or under an open dialog. */
export function isNoShortcut(event: KeyboardEvent): boolean {
	return (
		event.ctrlKey ||
		event.metaKey ||
		event.altKey ||
		isTyping(event) ||
		!!(event.target as HTMLElement | null)?.closest?.(finders) ||
		!!document.querySelector('[role=dialog][data-state=open]')
	);
}
