<script lang="ts">
	import type { Question } from '$core/kinds';
	import { bytes } from '$lib/ui/words';

	/** What a mend does to the files of a question, a line each. */
	let { before, after }: { before: Question; after: Question } = $props();

	type File = Question['attachments'][number];
	const changed = $derived(
		before.attachments.flatMap((old) => {
			const now = after.attachments.find(({ name }) => name === old.name);
			return now && JSON.stringify(now) !== JSON.stringify(old) ? [{ old, now }] : [];
		})
	);
	const sizeOf = ({ missing, width, height, bytes: size }: File) =>
		missing
			? 'not there'
			: [...(width && height ? [`${width} by ${height} pixels`] : []), ...(size ? [bytes(size)] : [])].join(', ') ||
				'there';
</script>

{#if changed.length}<ul class="mt-2">
		{#each changed as { old, now } (old.name)}<li>
				“{old.name}”: {sizeOf(old)} → {sizeOf(now)}
			</li>{/each}
	</ul>{/if}
