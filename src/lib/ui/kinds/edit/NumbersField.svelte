<script lang="ts">
	import { typedNumbers } from '$lib/forms/typed-number';

	/** Numbers one after the other. What is no number is said, and changes nothing. */
	let { values = $bindable(), label }: { values: number[]; label: string } = $props();

	let typed = $state<string | null>(null);
	let wrong = $state('');
	const id = $props.id();
	function read(text: string): void {
		const numbers = typedNumbers(text);
		wrong = numbers.some(Number.isNaN) ? 'Write numbers with a semicolon between them, such as 2,5; 3.' : '';
		typed = wrong ? text : null;
		if (!wrong) values = numbers;
	}
</script>

<span class="min-w-0 flex-1">
	<input
		class="input w-full"
		aria-label={label}
		aria-invalid={wrong ? 'true' : undefined}
		aria-describedby={wrong ? id : undefined}
		value={typed ?? values.join('; ')}
		onchange={(event) => read(event.currentTarget.value)}
	/>{#if wrong}<span class="broken block text-[12.5px]" {id} role="alert">{wrong}</span>{/if}
</span>
