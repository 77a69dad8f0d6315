<script lang="ts">
	import { figure } from '$lib/ui/words';
	import { enhance } from '$lib/ui/refresh';

	/** Where a course goes when it is over: to the archive, or to the bin, and back. */
	let {
		course,
		mayManage,
		questions
	}: { course: { name: string; state: string }; mayManage: boolean; questions: number } = $props();
</script>

<form method="POST" action="?/state" use:enhance class="flex flex-col gap-6">
	<fieldset disabled={!mayManage} class="contents">
		<section>
			<h2 class="mb-1">Archive</h2>
			{#if course.state === 'archived'}
				<p class="mute mb-2">It is in the archive: all can look at it, nobody can change it.</p>
				<button class="btn btn-sm preset-outlined-brand" name="state" value="open">Take it out of the archive</button>
			{:else}
				<p class="mute mb-2">In the archive it can be looked at, copied and found, and nothing in it is changed.</p>
				<button class="btn btn-sm preset-outlined-brand" name="state" value="archived">Put it in the archive</button>
			{/if}
		</section>
		<section>
			<h2 class="mb-1">Bin</h2>
			<p class="mute mb-2">
				In the bin nobody can open it; its {figure(questions)} questions stay, and it is put back from the page of courses.
			</p>
			<button class="btn btn-sm preset-outlined-brand" name="state" value="binned">Put {course.name} in the bin</button>
		</section>
	</fieldset>
</form>
