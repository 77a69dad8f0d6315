<script lang="ts">
	import { kindName } from '$core/kinds';
	import type { StoredQuestion } from '$lib/server/banks/banks';
	import { dateTime } from '$lib/ui/words';

	/** What is known of a question beside what it asks: where it is from, when it came, where it is used. */
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
		<tr><td class="mute">Difficulty</td><td>{stored.question.difficulty ?? '–'}</td></tr>
		<tr><td class="mute">Language</td><td>{stored.question.language ?? '–'}</td></tr>
		<tr><td class="mute">Written by</td><td>{stored.machine ? 'a machine' : 'a person'}</td></tr>
		<tr><td class="mute">Came</td><td>{dateTime(stored.created)}</td></tr>
		{#each stored.question.metadata as { name, value }, at (at)}<tr><td class="mute">{name}</td><td>{value}</td></tr
			>{/each}
	</tbody>
</table>
