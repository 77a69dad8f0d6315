import type { StoredQuestion } from '$lib/server/banks/banks';
import type { BankView } from './bank.svelte';

/** Says what is known of the key of a question; gives whether it was kept. */
export const setKeyState = (view: BankView, stored: StoredQuestion, state: string, note = ''): Promise<boolean> =>
	view.actAtOnce('bulk', { do: 'key', chosen: { bankId: stored.bankId, ids: [stored.id] }, state, note });
