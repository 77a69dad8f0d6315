<script lang="ts">
	import type { Done } from '$lib/server/changes/deed';
	import type { Named } from '$lib/server/quizzes/gather';
	import Ask from '$lib/ui/Ask.svelte';
	import { send, tellDone } from '$lib/ui/doing';
	import { count } from '$lib/ui/words';
	import { refresh } from '$lib/ui/refresh';

	/** Gathers the questions that chosen quizzes name into one bank; the quizzes go on naming them. */
	let {
		courseId,
		quizzes,
		banks,
		open = $bindable()
	}: { courseId: number; quizzes: number[]; banks: { id: number; name: string }[]; open: boolean } = $props();

	let bank = $state('');
	let bankName = $state('');
	let category = $state('');
	let looseOnly = $state(false);
	let named = $state<Named | null>(null);
	let busy = $state(false);
	let failure = $state('');
	const address = $derived(`/courses/${courseId}/quizzes/gather`);
	const wanted = $derived(named ? (looseOnly ? named.loose : named.questions) : 0);

	$effect(() => {
		if (!open) return;
		failure = '';
		void send<Named>(`${address}?preview=1`, { quizzes }).then((sent) => {
			named = sent.ok ? sent.value : null;
			failure = sent.ok ? '' : sent.message;
		});
	});
	async function act() {
		busy = true;
		const bankId = Number(bank) || null;
		const sent = await send<Done>(address, { quizzes, bankId, bankName, category, looseOnly });
		busy = false;
		if (!sent.ok) return void (failure = sent.message);
		open = false;
		await refresh();
		tellDone(courseId, sent.value, refresh);
	}
</script>

<Ask
	bind:open
	title="Gather the questions of {count(quizzes.length, 'quiz', 'quizzes')}"
	does="Gather {count(wanted, 'question')}"
	ready={wanted > 0 && (bank !== '' || bankName.trim() !== '')}
	{busy}
	{failure}
	{act}
>
	{#if named}<p class="mute">
			They name {count(named.questions, 'question')} in {count(named.banks, 'bank')}; {named.loose} of them stand in no category.
		</p>{/if}
	<label class="flex flex-col gap-1"
		>Into the bank
		<select class="select" bind:value={bank}
			><option value="">a new bank</option>{#each banks as { id, name } (id)}<option value={String(id)}>{name}</option
				>{/each}</select
		></label
	>
	{#if bank === ''}<label class="flex flex-col gap-1"
			>Its name <input class="input" maxlength="190" bind:value={bankName} /></label
		>{/if}
	<label class="flex flex-col gap-1"
		>Category <input
			class="input"
			maxlength="255"
			placeholder="empty for the bank itself"
			bind:value={category}
		/></label
	>
	<label class="flex items-center gap-2"
		><input type="checkbox" class="checkbox" bind:checked={looseOnly} /> only those that stand in no category</label
	>
	<p class="mute text-[13px]">The quizzes go on naming them.</p>
</Ask>
