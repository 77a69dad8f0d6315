<script lang="ts">
	import type { FileUploadQuestion } from '$core/kinds';
	import type { Showing } from '../showing';

	/** What kind of file is asked for. */
	let { question }: Showing<FileUploadQuestion> = $props();
</script>

<p class="mute mt-3">
	Answered with a file{question.accepts ? ` (${question.accepts})` : ''}, marked by a person.
</p>
