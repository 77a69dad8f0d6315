import { createContext } from 'svelte';

/** What the fields of a form know of it: what is wrong with each by its name, and what was filled in before. */
interface FilledIn {
	slipOf: (name: string) => string;
	valueOf: (name: string) => string | undefined;
}

/** The form around a field. */
export const [theForm, setTheForm] = createContext<FilledIn>();
