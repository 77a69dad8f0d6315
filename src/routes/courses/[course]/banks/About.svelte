<script lang="ts">
	import { kindName } from '$core/kinds';
	import type { StoredQuestion } from '$lib/server/banks/banks';
	import WordChanges from '$lib/ui/WordChanges.svelte';
	import { dateTime } from '$lib/ui/words';

	/** What is known of a question beside what it asks: where it is from, where it is used, who has verified it, what it was before. */
	let { stored, courseId }: { stored: StoredQuestion; courseId: number } = $props();
</script>

<table class="table">
	<tbody>
		<tr><td class="mute">Kind</td><td>{kindName(stored.question.kind)}</td></tr>
		<tr><td class="mute">Tags</td><td>{stored.question.tags.join(', ') || '–'}</td></tr>
		<tr
			><td class="mute">From</td><td
				>{stored.from ?? '–'}{stored.question.source ? `, ${stored.question.source.file}` : ''}</td
			></tr
		>
		<tr><td class="mute">Identifier</td><td class="mono">{stored.question.identifier || '–'}</td></tr>
		<tr
			><td class="mute">Used in</td><td
				>{#each stored.usedIn as quiz (quiz.id)}<a class="word block" href="/courses/{courseId}/quizzes/{quiz.id}"
						>{quiz.title}</a
					>{:else}no quiz names it{/each}</td
			></tr
		>
		<tr
			><td class="mute">Key</td><td
				>{stored.verified ? `verified by ${stored.verified.by}, ${dateTime(stored.verified.at)}` : 'not verified'}</td
			></tr
		>
		{#each stored.question.metadata as { name, value }, at (at)}<tr><td class="mute">{name}</td><td>{value}</td></tr
			>{/each}
	</tbody>
</table>
{#each stored.history as old (old.version)}
	<h3 class="mt-5">Before {dateTime(old.replaced)}{old.by ? `, replaced by ${old.by}` : ''}</h3>
	<WordChanges before={old.question} after={stored.question} />
{/each}
