<script lang="ts">
	import { asForetold } from '$core/compare/proof';
	import type { Proof } from '$lib/server/dispatches/dispatches';
	import Mark from '$lib/ui/Mark.svelte';
	import { bytes } from '$lib/ui/words';

	/** What a file that was written and read back comes to, with the file and every question that is not identical. */
	let { proof, dispatch, courseId }: { proof: Proof; dispatch: { id: number; file_name: string }; courseId: number } =
		$props();

	const good = $derived(asForetold(proof));
	const lines = $derived([
		['In the bank or quiz', proof.inAll],
		['Left behind, as the table said', proof.leftBehind],
		['Sent', proof.sent],
		['Found in the file', proof.foundInFile],
		['Identical', proof.identical],
		['Changed, as the table said', proof.foretold],
		['Changed otherwise', proof.otherwise],
		['Missing', proof.missing]
	] as const);
</script>

<p class="mb-2">
	<Mark
		severity={good
			? proof.foretold || proof.leftBehind || proof.quizForetold?.length
				? 'doubtful'
				: 'whole'
			: 'broken'}
		word={good
			? proof.foretold || proof.leftBehind || proof.quizForetold?.length
				? 'Read back: all is as the table said.'
				: 'Read back: nothing differs.'
			: 'Read back: something differs that should not.'}
	/>
</p>
<table class="table">
	<tbody
		>{#each lines as [name, number] (name)}<tr><td>{name}</td><td class="number"><b>{number}</b></td></tr>{/each}</tbody
	>
</table>
{#each proof.quiz as words (words)}<p class="notice broken">{words}</p>{/each}
{#each proof.quizForetold ?? [] as words (words)}<p class="notice doubtful">
		As the table said: {words}
	</p>{/each}
<p class="mono mute mt-3 break-all">sha256 {proof.hash}</p>
<p class="mt-3">
	<a
		class="btn btn-sm preset-filled-brand"
		href="/courses/{courseId}/dispatch/{dispatch.id}/file"
		download={dispatch.file_name}>Download {bytes(proof.size)}</a
	>
</p>
{#if proof.lines.length}
	<h3 class="mt-5">Not identical</h3>
	<table class="table">
		<tbody
			>{#each proof.lines.slice(0, 100) as line, at (at)}<tr
					><td
						><a class="word" href="/courses/{courseId}/banks?question={line.questionId}">{line.title}</a><span
							class="mute block text-[13px]">{line.outcome}{line.what.length ? `: ${line.what.join('; ')}` : ''}</span
						></td
					></tr
				>{/each}</tbody
		>
	</table>
{/if}
