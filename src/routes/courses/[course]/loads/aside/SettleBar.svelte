<script lang="ts">
	import type { AsideLoad, AsideRow } from '$lib/server/loads/aside-list';
	import type { Settled } from '$lib/server/loads/aside';
	import { send } from '$lib/ui/doing';
	import type { Pages } from '$lib/ui/pages.svelte';
	import type { Selection } from '$lib/ui/selection.svelte';
	import { tell } from '$lib/ui/toasts';
	import { count, figure } from '$lib/ui/words';
	import { refresh } from '$lib/ui/refresh';

	/** What becomes of the questions that are selected: taken in, where all of them are put right, or left out. */
	let {
		selection,
		list,
		courseId,
		loads,
		from,
		settled
	}: {
		selection: Selection<AsideRow>;
		list: Pages<AsideRow>;
		courseId: number;
		loads: AsideLoad[];
		/** The load whose questions are listed; all of them where there is none. */
		from: number | null;
		/** Is told which questions are gone from the list, once it is drawn anew. */
		settled: (isGone: (id: number) => boolean) => void;
	} = $props();

	/** So many are named by their keys at the most. */
	const mostUndone = 20_000;
	let busy = $state(false);
	const address = $derived(`/courses/${courseId}/loads/aside/settle`);
	/** Whether a question is broken still, as far as it is here; as it was when it was selected where it is not. */
	const isBroken = (id: number, before = false) => list.find((row) => row.id === id)?.broken ?? before;
	const broken = $derived.by(() => {
		if (!selection.except) return selection.picked.filter((row) => isBroken(row.id, row.broken)).length;
		const listed = loads.reduce((sum, load) => sum + (from === null || load.id === from ? load.broken : 0), 0);
		return listed - selection.except.filter((id) => isBroken(id)).length;
	});
	const ready = $derived(selection.selected - broken);
	const meant = $derived(selection.except ? { load: from, except: selection.except } : { ids: selection.ids });

	async function settle<Answer>(what: object, then: (answer: Answer) => void, isGone = (_: number) => false) {
		busy = true;
		const sent = await send<Answer>(address, what);
		busy = false;
		if (!sent.ok) return tell(sent.message);
		selection.clear();
		await refresh();
		settled(isGone);
		then(sent.value);
	}
	/** Whether a question is among those that are selected now. */
	function isMeant(): (id: number) => boolean {
		const [except, ids] = [selection.except && new Set(selection.except), new Set(selection.ids)];
		return (id) => (except ? !except.has(id) : ids.has(id));
	}
	const take = () =>
		settle<number>(
			{ do: 'take', ...meant },
			(questions) => tell(`Taken in: ${count(questions, 'question')}.`),
			isMeant()
		);
	const leave = () =>
		settle<Settled>(
			{ do: 'leave', ...meant },
			({ questions, ids }) =>
				tell(
					`Left out: ${count(questions, 'question')}.`,
					ids.length <= mostUndone ? { name: 'Undo', act: () => void back(ids) } : undefined
				),
			isMeant()
		);
	const back = (ids: number[]) =>
		settle<Settled>({ do: 'back', ids }, ({ questions }) => tell(`Set aside again: ${count(questions, 'question')}.`));
</script>

<div class="bar">
	<span class="mr-auto" role="status"
		>{#if selection.selected}<b>{count(selection.selected, 'question')} selected</b>, {figure(ready)} of them put right
		{:else}<span class="mute">Put a question right on the right, select it, and take it in.</span>{/if}</span
	>
	<button
		type="button"
		class="btn preset-outlined-brand"
		disabled={busy || !selection.selected}
		title="They are counted as left out on the receipt of their load"
		onclick={leave}>Leave out {selection.selected ? figure(selection.selected) : ''}</button
	>
	<button
		type="button"
		class="btn preset-filled-brand"
		disabled={busy || !selection.selected || broken > 0}
		title={broken ? `${count(broken, 'question')} of them still broken: put right first` : ''}
		onclick={take}>Take in {selection.selected && !broken ? figure(ready) : ''}</button
	>
</div>
