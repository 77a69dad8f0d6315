<script lang="ts">
	import { pathOfKey } from '$core/take-in/paths';
	import WayBack from './WayBack.svelte';
	import { ago, dateTime, count, pathText } from '$lib/ui/words';
	let { data } = $props();
</script>

<svelte:head><title>Ledger · {data.course.name} · Yarn Barrow</title></svelte:head>
<div class="sheet">
	<h1 class="mb-3">Ledger</h1>
	<table class="table">
		<thead
			><tr
				><th>When</th><th>Who</th><th>What was done</th><th>To what</th><th class="number">Questions</th><th
					><span class="visually-hidden">Do</span></th
				></tr
			></thead
		>
		<tbody>
			{#each data.deeds as deed (deed.id)}
				<tr>
					<td class="mute whitespace-nowrap" title={ago(deed.done)}>{dateTime(deed.done)}</td>
					<td>{deed.person}</td>
					<td>{deed.deed}</td>
					<td
						>{#if deed.address}<a class="word" href={deed.address}>{deed.subject}</a>{:else}{deed.subject}{/if}
						{#if deed.receipt}<details class="text-[13px]">
								<summary class="mute">the receipt as it was</summary>
								{#each deed.receipt as line (line.key)}<p>
										{pathText(pathOfKey(line.key))}: {line.found} = {line.taken} taken in{line.replaced
											? ` + ${line.replaced} in place of older`
											: ''} + {line.aside} set aside + {line.left} left out{line.skipped
											? ` + ${line.skipped} skipped`
											: ''}
									</p>{/each}
							</details>{/if}</td
					>
					<td class="number" title={count(deed.questions, 'question')}>{deed.questions.toLocaleString('en')}</td>
					<td class="text-right"
						>{#if deed.wayBack === 'done'}<span class="mute">taken back</span>
						{:else if deed.wayBack === 'open' && data.mayChange}<WayBack courseId={data.course.id} {deed} />{/if}</td
					>
				</tr>
			{:else}<tr><td colspan="6" class="mute">Nothing has been done in this course yet.</td></tr>{/each}
		</tbody>
	</table>
</div>
