<script lang="ts">
	import type { FileUploadQuestion } from '$core/kinds';
	import type { Showing } from '../showing';

	/** What kind of file is asked for, and a place to choose one where it is tried; nothing of it leaves the browser. */
	let { question, mode, answer, onanswer }: Showing<FileUploadQuestion> = $props();
</script>

{#if mode === 'try'}
	<p class="mt-3 flex flex-wrap items-center gap-3">
		<input
			type="file"
			aria-label="Your file"
			accept={question.accepts ?? undefined}
			onchange={(event) => onanswer({ ...answer, text: event.currentTarget.files?.[0]?.name ?? '' })}
		/>
		<span class="mute text-[13px]">It stays in your browser: this is a sitting to try.</span>
	</p>
{:else}<p class="mute mt-3">
		Answered with a file{question.accepts ? ` (${question.accepts})` : ''}, marked by a person.
	</p>{/if}
