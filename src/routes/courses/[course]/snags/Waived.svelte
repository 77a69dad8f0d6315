<script lang="ts">
	import type { Waiver } from '$lib/server/snags/waive';
	import { ruleTitle } from '$lib/ui/rule';
	import { count, dateTime } from '$lib/ui/words';
	import { enhance } from '$lib/ui/refresh';

	/** What is waived in a course, by whom and why, each with the way back. */
	let { waivers, courseId, mayChange }: { waivers: Waiver[]; courseId: number; mayChange: boolean } = $props();

	const within = (waiver: Waiver) =>
		waiver.scope === 'course'
			? 'in the whole course'
			: waiver.scope === 'category'
				? `in ${waiver.subject} and under it`
				: waiver.subject;
</script>

<div class="filters"><h2 class="mr-auto">Waived <span class="mute font-normal">{waivers.length}</span></h2></div>
{#if waivers.length}
	<table class="table">
		<thead
			><tr
				><th scope="col">What</th><th scope="col">Why</th><th scope="col">By</th><th scope="col"
					><span class="visually-hidden">Back</span></th
				></tr
			></thead
		>
		<tbody>
			{#each waivers as waiver (waiver.id)}
				<tr>
					<td
						><b class="block">{ruleTitle(waiver.rule)}</b>
						{#if waiver.questionId && waiver.bankId}<a
								class="word text-[13px]"
								href="/courses/{courseId}/banks?bank={waiver.bankId}&question={waiver.questionId}">{within(waiver)}</a
							>{:else}<span class="mute text-[13px]">{within(waiver)}, {count(waiver.snags, 'snag')}</span>{/if}</td
					>
					<td class="text-[13px]">{waiver.reason || 'no reason was given'}</td>
					<td class="mute text-[13px]">{waiver.by}, {dateTime(waiver.made)}</td>
					<td>
						{#if mayChange}<form method="POST" action="?/unwaive" use:enhance>
								<input type="hidden" name="waiver" value={waiver.id} /><button
									class="btn btn-sm preset-outlined-brand"
									aria-label="Take back: {ruleTitle(waiver.rule)}, {within(waiver)}">Take back</button
								>
							</form>{/if}
					</td>
				</tr>
			{/each}
		</tbody>
	</table>
{:else}<p class="mute p-5">Nothing is waived in this course.</p>{/if}
