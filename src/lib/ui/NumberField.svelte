<script lang="ts">
	import { typedNumber } from '$lib/forms/typed-number';

	/** A field for a number, with a comma or a point. What is no number, or out of bounds, is said beside it and changes nothing. */
	let {
		value = $bindable(),
		label,
		placeholder = '',
		whole = false,
		least = 0,
		most = 1_000_000,
		required = false,
		disabled = false,
		width = '56px',
		live = false,
		focus
	}: {
		/** Null where the field is empty. */
		value: number | null;
		label: string;
		placeholder?: string;
		whole?: boolean;
		least?: number;
		most?: number;
		/** It may not be empty. */
		required?: boolean;
		disabled?: boolean;
		width?: string;
		/** Whether what is typed acts at once, and not when the field is left. */
		live?: boolean;
		focus?: () => void;
	} = $props();

	let typed = $state<string | null>(null);
	let wrong = $state('');
	const id = $props.id();
	const shown = $derived(typed ?? (value === null ? '' : String(value)));

	/** What is wrong with what is typed; nothing where it can be taken. */
	function faultOf(text: string, number: number): string {
		if (!text.trim()) return required ? 'Give a number.' : '';
		if (!Number.isFinite(number)) return `“${text.trim().slice(0, 20)}” is no number.`;
		if (whole && !Number.isInteger(number)) return 'A whole number, please.';
		if (number < least) return `At least ${least}.`;
		return number > most ? `At most ${most.toLocaleString('en')}.` : '';
	}
	function take(text: string): string {
		const number = typedNumber(text);
		const fault = faultOf(text, number);
		if (!fault) value = text.trim() ? number : null;
		return fault;
	}
	/** While it is typed: what can be taken is, and nothing is said yet of what cannot. */
	function follow(text: string): void {
		if (!live) return;
		typed = text;
		if (!take(text)) wrong = '';
	}
	/** Once it is left. */
	function read(text: string): void {
		wrong = take(text);
		typed = wrong ? text : null;
	}
</script>

<input
	class="input text-right"
	style="width: {width}"
	inputmode={whole ? 'numeric' : 'decimal'}
	aria-label={label}
	aria-invalid={wrong ? 'true' : undefined}
	aria-describedby={wrong ? id : undefined}
	{placeholder}
	{disabled}
	value={shown}
	onfocus={() => focus?.()}
	oninput={(event) => follow(event.currentTarget.value)}
	onchange={(event) => read(event.currentTarget.value)}
/>{#if wrong}<span class="broken block text-[12.5px] whitespace-normal" {id} role="alert">{wrong}</span>{/if}
