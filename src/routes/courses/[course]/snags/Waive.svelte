<script lang="ts">
	import { isNoShortcut } from '$lib/ui/keys';
	import { enhance } from '$lib/ui/refresh';

	/** Waives what a check says, with a reason: for the question, for its category, or in the course. */
	let { check, questionId, category }: { check: string; questionId: number; category: string | null } = $props();

	let open = $state(false);
	const focus = (node: HTMLElement) => node.focus();
	function keys(event: KeyboardEvent) {
		if (event.key === 'Escape') open = false;
		if (isNoShortcut(event) || event.key !== 'w') return;
		event.preventDefault();
		open = true;
	}
</script>

<svelte:window onkeydown={keys} />
{#if open}
	<form
		method="POST"
		action="?/waive"
		class="mt-3 flex flex-col gap-2"
		use:enhance={() =>
			async ({ update }) => {
				await update();
				open = false;
			}}
	>
		<input type="hidden" name="check" value={check} /><input type="hidden" name="question" value={questionId} />
		<label class="flex flex-col gap-1 text-[13px]"
			>Why it can stay so <input class="input" name="reason" maxlength="1000" use:focus /></label
		>
		<label class="flex flex-col gap-1 text-[13px]"
			>For <select class="select" name="scope"
				><option value="question">this question</option>{#if category}<option value="category"
						>all of {category}, and what is under it</option
					>{/if}<option value="course">the whole course</option></select
			></label
		>
		<div class="flex gap-2">
			<button class="btn btn-sm preset-filled-brand">Waive it</button>
			<button type="button" class="btn btn-sm preset-outlined-brand" onclick={() => (open = false)}
				>Leave it open</button
			>
		</div>
	</form>
{:else}<button type="button" class="btn btn-sm preset-outlined-brand" onclick={() => (open = true)}
		>Waive … <kbd>w</kbd></button
	>{/if}
