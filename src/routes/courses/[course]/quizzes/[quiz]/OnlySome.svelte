<script lang="ts">
	import { kindName, kinds } from '$core/kinds';
	import { restricts } from '$core/draws/conditions';
	import { plainConditions } from '$lib/forms/quiz';
	import type { PartLook } from '$lib/server/quizzes/look';
	import type { Part } from '$lib/server/quizzes/quiz';
	import DateField from '$lib/ui/DateField.svelte';
	import NumberField from '$lib/ui/NumberField.svelte';
	import TagsField from '$lib/ui/TagsField.svelte';
	import Toggle from '$lib/ui/Toggle.svelte';

	/** What is asked of the questions of a part's categories: tags, kinds, difficulty, key, snags, and since when they are there. */
	let { part, look, disabled }: { part: Part; look: PartLook | undefined; disabled: boolean } = $props();

	const asked = $derived(part.conditions);
	const drawable = kinds.filter((kind) => kind !== 'information' && kind !== 'unreadable');
	const tagLists = [
		{ name: 'any', label: 'with any of the tags' },
		{ name: 'all', label: 'with all of the tags' },
		{ name: 'none', label: 'without the tags' }
	] as const;
	const words = $derived(
		[
			...(asked.kinds.length ? [asked.kinds.map((kind) => kindName(kind as never)).join(', ')] : []),
			...tagLists.flatMap(({ name, label }) =>
				asked.tags[name].length ? [`${label} ${asked.tags[name].join(', ')}`] : []
			),
			...(asked.difficulty ? [`difficulty ${asked.difficulty[0]} to ${asked.difficulty[1]}`] : []),
			...(asked.key ? [`key ${asked.key}`] : []),
			...(asked.unbroken ? ['without broken snags'] : []),
			...(asked.since ? [`made since ${asked.since}`] : [])
		].join('; ')
	);
	function difficulty(end: 0 | 1, value: number | null) {
		const now = asked.difficulty ?? [0, 1];
		const next = end ? [now[0]!, value ?? 1] : [value ?? 0, now[1]!];
		part.conditions.difficulty = value === null && !asked.difficulty ? null : [Math.min(...next), Math.max(...next)];
	}
	const id = $props.id();
</script>

<details class="mt-3" open={restricts(asked)}>
	<summary
		><b>Only some of them</b>
		<span class="mute">{words || 'all questions of these categories'}</span></summary
	>
	<div class="conditions">
		<span>Kinds</span>
		<div class="flex flex-wrap gap-x-3 gap-y-1">
			{#each drawable as kind (kind)}<label class="flex items-center gap-1 text-[13px]"
					><input
						type="checkbox"
						class="checkbox"
						{disabled}
						checked={asked.kinds.includes(kind)}
						onchange={(event) =>
							(part.conditions.kinds = event.currentTarget.checked
								? [...asked.kinds, kind]
								: asked.kinds.filter((other) => other !== kind))}
					/>
					{kindName(kind)}</label
				>{/each}
		</div>
		{#each tagLists as { name, label } (name)}
			<span>{label}</span>
			<TagsField
				{label}
				hidesLabel
				known={(look?.tags ?? []).map((tag) => tag.name)}
				{disabled}
				tags={asked.tags[name]}
				change={(tags) => (part.conditions.tags[name] = tags)}
			/>
		{/each}
		<span>Difficulty</span>
		<div class="flex items-center gap-2">
			<NumberField
				label="Easiest difficulty"
				placeholder="any"
				{disabled}
				least={-1000}
				bind:value={() => asked.difficulty?.[0] ?? null, (value) => difficulty(0, value)}
			/> to
			<NumberField
				label="Hardest difficulty"
				placeholder="any"
				{disabled}
				least={-1000}
				bind:value={() => asked.difficulty?.[1] ?? null, (value) => difficulty(1, value)}
			/>
			{#if look?.difficulty}<span class="mute text-[13px]">here {look.difficulty[0]} to {look.difficulty[1]}</span>{/if}
		</div>
		<label for="{id}-key">Key</label>
		<select
			id="{id}-key"
			class="select"
			{disabled}
			bind:value={() => asked.key ?? '', (value) => (part.conditions.key = value === '' ? null : value)}
			><option value="">whatever is known of it</option><option value="verified">verified by a person</option><option
				value="not disputed">not doubted</option
			></select
		>
		<span>Made since</span>
		<DateField label="Made since" {disabled} bind:value={part.conditions.since} />
		<span></span>
		<Toggle bind:on={part.conditions.unbroken} {disabled} label="without broken snags" />
		{#if restricts(asked) && !disabled}<span></span><button
				type="button"
				class="word justify-self-start"
				onclick={() => (part.conditions = plainConditions())}>All questions again</button
			>{/if}
	</div>
</details>

<style>
	summary,
	button {
		cursor: pointer;
	}
	.conditions {
		display: grid;
		grid-template-columns: max-content minmax(0, 1fr);
		gap: 6px 12px;
		align-items: center;
		margin-top: 8px;
	}
</style>
