<script lang="ts">
	import { kindName } from '$core/kinds';
	import type { Done } from '$lib/server/changes/deed';
	import Ask from '$lib/ui/Ask.svelte';
	import { send, tellDone } from '$lib/ui/doing';
	import { tell } from '$lib/ui/toasts';
	import { count, dateTime, figure } from '$lib/ui/words';
	import { SvelteSet } from 'svelte/reactivity';
	import { refresh } from '$lib/ui/refresh';

	let { data } = $props();
	const chosen = new SvelteSet<number>();
	let busy = $state(false);
	let emptying = $state(false);
	const { questions, banks, inAll } = $derived(data.bin);
	const all = $derived(questions.length > 0 && questions.every(({ id }) => chosen.has(id)));
	const inBanks = $derived(banks.reduce((sum, bank) => sum + bank.questions, 0));

	async function back(asked: { ids?: number[]; bank?: number }) {
		busy = true;
		const sent = await send<Done>(`/courses/${data.course.id}/bin/back`, asked);
		busy = false;
		if (!sent.ok) return tell(sent.message);
		chosen.clear();
		await refresh();
		tellDone(data.course.id, sent.value, refresh);
	}
	async function empty() {
		busy = true;
		const sent = await send<{ gone: number }>(`/courses/${data.course.id}/bin/back`, { forGood: true }, 'DELETE');
		busy = false;
		emptying = false;
		await refresh();
		tell(sent.ok ? `${count(sent.value.gone, 'question')} are gone for good.` : sent.message);
	}
</script>

<svelte:head><title>Bin · {data.course.name} · Yarn Barrow</title></svelte:head>
<div class="sheet">
	<div class="mb-3 flex items-center gap-3">
		<h1 class="mr-auto">Bin of {data.course.name}</h1>
		{#if data.mayChange && chosen.size}<button
				type="button"
				class="btn btn-sm preset-filled-brand"
				disabled={busy}
				onclick={() => back({ ids: [...chosen] })}>Put {count(chosen.size, 'question')} back</button
			>{/if}
		{#if data.course.role === 'manage' && data.mayChange && (inAll || banks.length)}<button
				type="button"
				class="btn btn-sm preset-outlined-brand"
				onclick={() => (emptying = true)}>Empty the bin …</button
			>{/if}
	</div>
	{#if banks.length}
		<h2 class="mb-1">Banks</h2>
		<table class="table mb-6">
			<tbody>
				{#each banks as bank (bank.id)}
					<tr>
						<td>{bank.name}</td>
						<td class="number">{count(bank.questions, 'question')}</td>
						<td class="text-right"
							>{#if data.mayChange}<button
									type="button"
									class="btn btn-sm preset-outlined-brand"
									disabled={busy}
									aria-label="Put {bank.name} back"
									onclick={() => back({ bank: bank.id })}>Put it back</button
								>{/if}</td
						>
					</tr>
				{/each}
			</tbody>
		</table>
	{/if}
	{#if inAll}
		<h2 class="mb-1">Questions <span class="mute font-normal">{figure(inAll)}</span></h2>
		<table class="table">
			<thead>
				<tr>
					{#if data.mayChange}<th
							><input
								type="checkbox"
								class="checkbox"
								aria-label="Select all that are listed"
								checked={all}
								onchange={(event) => {
									chosen.clear();
									if (event.currentTarget.checked) for (const { id } of questions) chosen.add(id);
								}}
							/></th
						>{/if}
					<th>Question</th><th>Kind</th><th>Stood in</th><th>Since</th><th>By</th>
				</tr>
			</thead>
			<tbody>
				{#each questions as question (question.id)}
					<tr>
						{#if data.mayChange}<td
								><input
									type="checkbox"
									class="checkbox"
									aria-label="Select {question.title}"
									checked={chosen.has(question.id)}
									onchange={(event) =>
										event.currentTarget.checked ? chosen.add(question.id) : chosen.delete(question.id)}
								/></td
							>{/if}
						<td>{question.title}</td>
						<td class="mute">{kindName(question.kind)}</td>
						<td class="mute"
							>{[question.bank ?? 'a bank that is gone', question.category].filter(Boolean).join(' › ')}</td
						>
						<td class="mute whitespace-nowrap">{question.done ? dateTime(question.done) : ''}</td>
						<td class="mute">{question.by ?? ''}</td>
					</tr>
				{/each}
			</tbody>
		</table>
		{#if inAll > questions.length}<p class="mute mt-2">
				These are the last {questions.length} of {figure(inAll)}.
			</p>{/if}
	{:else if !banks.length}<p class="mute">
			Nothing is in the bin. What is put there from a bank waits here until it is put back, or until the bin is emptied.
		</p>{/if}
</div>
<Ask
	bind:open={emptying}
	title="Empty the bin for good"
	does="Remove {count(inAll + inBanks, 'question')} for good"
	{busy}
	act={empty}
>
	<p>
		{count(inAll + inBanks, 'question')}{banks.length ? `, ${inBanks} of them in ${count(banks.length, 'bank')},` : ''} are
		removed with their history. There is no way back from that.
	</p>
</Ask>
