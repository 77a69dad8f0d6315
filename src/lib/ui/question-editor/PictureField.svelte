<script lang="ts">
	import type { Question } from '$core/kinds';
	import type { Attachment } from '$core/model/question';
	import { getContext } from 'svelte';
	import { handInKey, type HandIn } from '../rich-text/hand-in';

	/** The picture that a question points at: which it is, and what it says to those who do not see it. */
	let {
		question = $bindable(),
		attachments,
		courseId
	}: { question: Question; attachments: Attachment[]; courseId: number } = $props();

	const handIn = getContext<HandIn | undefined>(handInKey);
	const file = $derived(
		'picture' in question
			? attachments.find(({ name }) => 'picture' in question && name === question.picture.name)
			: undefined
	);
	function sizeOf(hash: string, type: string): Promise<{ width: number; height: number }> {
		return new Promise((resolve) => {
			const image = new Image();
			image.onload = () => resolve({ width: image.naturalWidth, height: image.naturalHeight });
			image.onerror = () => resolve({ width: 0, height: 0 });
			image.src = `/courses/${courseId}/files/${hash}?as=${encodeURIComponent(type)}`;
		});
	}
	async function take(chosen: File | undefined) {
		if (!chosen || !handIn) return;
		const stored = await handIn(chosen);
		if (!stored?.hash || !('picture' in question)) return;
		const { width, height } = await sizeOf(stored.hash, stored.mediaType);
		question.picture = { ...question.picture, name: stored.name, width: width || null, height: height || null };
	}
</script>

{#if 'picture' in question}
	{#if handIn}<label
			>{file ? 'Another picture' : 'The picture'}
			<input
				class="input w-full"
				type="file"
				accept="image/png,image/jpeg,image/gif,image/svg+xml,image/webp"
				onchange={(event) => take(event.currentTarget.files?.[0])}
			/></label
		>{/if}
	<label
		>What the picture shows, for those who do not see it
		<input class="input w-full" maxlength="2000" bind:value={question.picture.alt} /></label
	>
{/if}

<style>
	label {
		color: var(--ink2);
		font-size: 13px;
	}
</style>
