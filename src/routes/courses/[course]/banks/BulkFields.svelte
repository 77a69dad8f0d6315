<script lang="ts">
	import { typedNumber } from '$lib/forms/typed-number';
	import PlaceChoice from '$lib/ui/PlaceChoice.svelte';
	import TagsField from '$lib/ui/TagsField.svelte';
	import type { BulkDeed, BulkFilled } from './bulk-sheets';
	import QuizChoice from './QuizChoice.svelte';

	/** What has to be told of a deed on many questions before it is done. */
	let { deed, filled = $bindable(), courseId }: { deed: BulkDeed; filled: BulkFilled; courseId: number } = $props();

	const wrong = $derived(
		deed === 'points' && filled.text.trim() && Number.isNaN(typedNumber(filled.text))
			? `“${filled.text.trim().slice(0, 20)}” is no number.`
			: ''
	);
</script>

{#if deed === 'move' || deed === 'copy'}
	<PlaceChoice bind:bankId={filled.to.bankId} bind:categoryId={filled.to.categoryId} {courseId} />
{:else if deed === 'points'}
	<label class="flex flex-col gap-1"
		>Points each <input
			class="input w-28"
			inputmode="decimal"
			aria-invalid={wrong ? 'true' : undefined}
			bind:value={filled.text}
		/>{#if wrong}<span class="broken text-[12.5px]" role="alert">{wrong}</span>{/if}</label
	>
{:else if deed === 'tags'}
	<TagsField label="Add" bind:tags={filled.added} {courseId} />
	<TagsField label="Take away" bind:tags={filled.taken} {courseId} />
{:else if deed === 'difficulty'}
	<label class="flex flex-col gap-1"
		>Difficulty <input class="input" maxlength="60" placeholder="empty for none" bind:value={filled.text} /></label
	>
{:else if deed === 'language'}
	<label class="flex flex-col gap-1"
		>Language <input class="input w-40" maxlength="35" placeholder="en, de, pt-BR" bind:value={filled.text} /></label
	>
{:else if deed === 'disputed'}
	<label class="flex flex-col gap-1"
		>What is doubted <textarea class="textarea" rows="3" maxlength="1000" bind:value={filled.text}></textarea></label
	>
{:else if deed === 'quiz'}
	<QuizChoice {courseId} bind:into={filled.quiz} bind:title={filled.text} />
{:else if deed === 'replace'}
	<div class="flex gap-3">
		<label class="flex flex-1 flex-col gap-1">Look for <input class="input" bind:value={filled.text} /></label>
		<label class="flex flex-1 flex-col gap-1">Put <input class="input" bind:value={filled.put} /></label>
	</div>
	<div class="flex gap-5">
		<label class="flex items-center gap-2"
			><input type="checkbox" class="checkbox" bind:checked={filled.wholeWords} /> whole words</label
		>
		<label class="flex items-center gap-2"
			><input type="checkbox" class="checkbox" bind:checked={filled.exactCase} /> capitals matter</label
		>
	</div>
	<p class="mute text-[13px]">In stems, options, feedback and hints; accepted answers and titles stay as they are.</p>
{/if}
