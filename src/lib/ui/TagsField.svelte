<script lang="ts">
	import { TagsInput } from '@skeletonlabs/skeleton-svelte';
	import X from '@lucide/svelte/icons/x';
	import { latest } from './latest';

	/** Tags, each a piece of its own: typed with Enter or a comma after each, pasted as a list, taken out by a click or Backspace. */
	let {
		label,
		tags = $bindable(),
		change = (changed) => (tags = changed),
		placeholder = 'none',
		known = [],
		courseId,
		disabled = false,
		hidesLabel = false
	}: {
		label: string;
		tags: readonly string[];
		change?: (tags: string[]) => void;
		placeholder?: string;
		/** Tags that are there already, offered while one types. */
		known?: readonly string[];
		/** The course whose tags are offered too, where the caller does not know them. */
		courseId?: number;
		disabled?: boolean;
		/** Whether the label stands elsewhere, and here for screen readers alone. */
		hidesLabel?: boolean;
	} = $props();

	const id = $props.id();
	const mostOfTag = 120;
	let found = $state.raw<string[]>([]);
	const offered = $derived([...new Set([...known, ...found])].filter((tag) => !tags.includes(tag)));
	const ask = latest(async (letters: string): Promise<string[]> => {
		const answer = await fetch(`/courses/${courseId}/banks/tags?begins=${encodeURIComponent(letters)}`).catch(
			() => null
		);
		return answer?.ok ? ((await answer.json()) as string[]) : [];
	});
	async function offer(letters: string) {
		if (courseId !== undefined) found = (letters ? await ask(letters) : []) ?? found;
	}
</script>

<TagsInput
	value={[...tags]}
	onValueChange={(details) => change(details.value)}
	onInputValueChange={(details) => void offer(details.inputValue.trim())}
	delimiter={/[,;\n\t]/}
	sanitizeValue={(typed) => typed.trim()}
	blurBehavior="add"
	addOnPaste
	maxLength={mostOfTag}
	{disabled}
	class="tags"
>
	<TagsInput.Label class={hidesLabel ? 'visually-hidden' : 'tags-label'}>{label}</TagsInput.Label>
	<TagsInput.Control class="input tags-control">
		{#each tags as tag, index (tag)}
			<TagsInput.Item value={tag} {index}>
				<TagsInput.ItemPreview class="tag">
					<TagsInput.ItemText>{tag}</TagsInput.ItemText>
					<TagsInput.ItemDeleteTrigger class="tag-away" aria-label="Take {tag} out"
						><X size={12} aria-hidden="true" /></TagsInput.ItemDeleteTrigger
					>
				</TagsInput.ItemPreview>
				<TagsInput.ItemInput class="tag-edit" aria-label="Change {tag}" />
			</TagsInput.Item>
		{/each}
		<TagsInput.Input class="tags-typed" placeholder={tags.length ? '' : placeholder} list="{id}-known" />
	</TagsInput.Control>
	<datalist id="{id}-known"
		>{#each offered as tag (tag)}<option value={tag}></option>{/each}</datalist
	>
</TagsInput>

<style>
	:global(.tags) {
		display: flex;
		flex-direction: column;
		min-width: 0;
	}
	:global(.tags-label) {
		color: var(--ink2);
		font-size: 13px;
	}
	:global(.tags-control) {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 4px;
		height: auto;
		min-height: 28px;
		padding: 2px 6px;
	}
	:global(.tags-control:focus-within) {
		outline: 2px solid var(--woad);
		outline-offset: 1px;
	}
	:global(.tag) {
		display: inline-flex;
		align-items: center;
		gap: 3px;
		max-width: 260px;
		padding: 1px 4px 1px 8px;
		border: 1px solid var(--line2);
		border-radius: 4px;
		background: var(--woad-soft);
		font-size: 13px;
		overflow-wrap: anywhere;
	}
	:global(.tag[hidden]),
	:global(.tag-edit[hidden]) {
		display: none;
	}
	:global(.tag[data-highlighted]) {
		border-color: var(--woad);
	}
	:global(.tag-away) {
		display: grid;
		place-items: center;
		width: 20px;
		height: 20px;
		cursor: pointer;
	}
	:global(.tags-typed),
	:global(.tag-edit) {
		flex: 1;
		min-width: 80px;
		border: 0;
		outline: 0;
		padding: 1px 2px;
		background: transparent;
		color: inherit;
		font: inherit;
	}
</style>
