<script lang="ts">
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
		focus?: () => void;
	} = $props();

	let typed = $state<string | null>(null);
	let wrong = $state('');
	const id = $props.id();
	const shown = $derived(typed ?? (value === null ? '' : String(value)));

	function read(text: string): void {
		const trimmed = text.trim();
		if (!trimmed) {
			if (required) return refuse(text, 'Give a number.');
			value = null;
			return accept();
		}
		const number = /^[+-]?\d*[.,]?\d+$/.test(trimmed) ? Number(trimmed.replace(',', '.')) : NaN;
		if (!Number.isFinite(number)) return refuse(text, `“${trimmed.slice(0, 20)}” is no number.`);
		if (whole && !Number.isInteger(number)) return refuse(text, 'A whole number, please.');
		if (number < least) return refuse(text, `At least ${least}.`);
		if (number > most) return refuse(text, `At most ${most.toLocaleString('en')}.`);
		value = number;
		accept();
	}
	function refuse(text: string, why: string): void {
		typed = text;
		wrong = why;
	}
	function accept(): void {
		typed = null;
		wrong = '';
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
	onchange={(event) => read(event.currentTarget.value)}
/>{#if wrong}<span class="broken block text-[12.5px] whitespace-normal" {id} role="alert">{wrong}</span>{/if}
