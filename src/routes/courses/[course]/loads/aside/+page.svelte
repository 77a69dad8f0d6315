<script lang="ts">
	import { enhance } from '$app/forms';
	import { invalidateAll } from '$app/navigation';
	import { kindName } from '$core/kinds';
	import { pathOfKey } from '$core/take-in/paths';
	import type { StagedQuestion } from '$lib/server/loads/review';
	import Columns from '$lib/ui/Columns.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import { wholeList } from '$lib/ui/pages.svelte';
	import Rows from '$lib/ui/Rows.svelte';
	import Staged from '$lib/ui/Staged.svelte';
	import { count, pathText } from '$lib/ui/words';

	let { data, form } = $props();
	type Row = (typeof data.questions)[number];
	let chosen = $state<number | null>(null);
	let picked = $state.raw(new Set<number>());
	let shown = $state<StagedQuestion | null>(null);
	let busy = $state(false);
	let failure = $state('');
	let from = $state('');
	let asked = 0;

	const files = $derived([...new Set(data.questions.map((question) => question.fileName))]);
	const rows = $derived(data.questions.filter((question) => !from || question.fileName === from));
	const list = $derived(wholeList(rows));
	/** The row of the question that is seen, which may still be the one before while the chosen one is fetched. */
	const showing = $derived(data.questions.find((question) => question.id === shown?.id));
	const selection = $derived(data.questions.filter((question) => picked.has(question.id)));
	const ready = $derived(selection.filter((question) => !question.broken));

	async function choose(row: { id: number }) {
		chosen = row.id;
		asked += 1;
		const mine = asked;
		const question = data.questions.find((other) => other.id === row.id);
		if (!question) return;
		const answer = await fetch(`/courses/${data.course.id}/loads/${question.loadId}/questions/${question.id}`);
		if (mine === asked && answer.ok) shown = (await answer.json()) as StagedQuestion;
	}
	$effect(() => {
		if (!data.questions.some((question) => question.id === chosen) && data.questions[0]) void choose(data.questions[0]);
	});
	async function act(what: unknown): Promise<boolean> {
		if (!showing) return false;
		busy = true;
		failure = '';
		const response = await fetch(`/courses/${data.course.id}/loads/${showing.loadId}/review`, {
			method: 'POST',
			headers: { 'Content-Type': 'application/json', Accept: 'application/json' },
			body: JSON.stringify(what)
		}).catch(() => null);
		busy = false;
		if (!response?.ok) {
			const answer = (await response?.json().catch(() => null)) as { message?: string } | null;
			failure =
				answer?.message ?? 'The server does not answer, so this was not kept. Look at the connection, and do it again.';
			return false;
		}
		await invalidateAll();
		if (chosen !== null) await choose({ id: chosen });
		return true;
	}
	function pick(ids: number[], on: boolean) {
		const next = new Set(picked);
		for (const id of ids)
			if (on) next.add(id);
			else next.delete(id);
		picked = next;
	}
	const chosenOnes = (list: Row[]) => JSON.stringify(list.map(({ id, loadId }) => ({ id, loadId })));
</script>

<svelte:head><title>Set aside · {data.course.name} · Yarn Barrow</title></svelte:head>
<Columns name="aside" widths={[264, 420]} middleLabel="Questions that are set aside" lastLabel="The question">
	{#snippet middle()}
		<div class="filters">
			<h1 class="mr-auto text-[16px]!">Set aside: {data.questions.length.toLocaleString('en')}</h1>
			{#if files.length > 1}<select class="select" aria-label="Load" bind:value={from}
					><option value="">from any load</option>{#each files as file (file)}<option value={file}>{file}</option
						>{/each}</select
				>{/if}
			<a class="word text-[13px]" href="/courses/{data.course.id}/loads">all loads</a>
		</div>
		<Rows
			source={list}
			{chosen}
			{choose}
			label="Questions that are set aside"
			columns="18px minmax(0, 1fr) 110px minmax(0, 1.3fr) 150px"
			narrow="18px minmax(0, 1fr) minmax(0, 1fr) 100px"
		>
			{#snippet head()}<span role="columnheader"
					><input
						type="checkbox"
						aria-label="Select all that are listed"
						disabled={!data.mayChange}
						checked={rows.length > 0 && rows.every((row) => picked.has(row.id))}
						onchange={(event) =>
							pick(
								rows.map((row) => row.id),
								event.currentTarget.checked
							)}
					/></span
				><span role="columnheader">Question</span><span class="roomy" role="columnheader">Kind</span><span
					role="columnheader">Why it is kept out</span
				><span role="columnheader">Came in</span>{/snippet}
			{#snippet line(row: Row)}
				<span role="cell" class="flex items-center"
					><input
						type="checkbox"
						aria-label="Select {row.title}"
						disabled={!data.mayChange}
						checked={picked.has(row.id)}
						onclick={(event) => event.stopPropagation()}
						onchange={(event) => pick([row.id], event.currentTarget.checked)}
					/></span
				>
				<span class="cut" role="cell" title={row.title}>{row.title || '(no title)'}</span>
				<span class="roomy mute cut" role="cell">{kindName(row.kind)}</span>
				<span class="cut" role="cell" title={row.why ?? ''}
					>{#if row.broken}<Mark severity="broken" word={row.why ?? 'broken'} />{:else}<Mark
							severity="whole"
							word="put right"
						/>{/if}</span
				>
				<span class="mute cut" role="cell" title="{row.fileName}, {pathText(pathOfKey(row.category))}"
					>{row.fileName}</span
				>
			{/snippet}
		</Rows>
		{#if !data.questions.length}<p class="mute p-5">
				Nothing is set aside in this course. What a load keeps out comes here with its reasons, and stays until somebody
				puts it right or leaves it out.
			</p>{/if}
	{/snippet}
	{#snippet last()}
		{#if shown && showing}
			<Staged
				{shown}
				number={showing.number}
				courseId={data.course.id}
				mayChange={data.mayChange}
				{busy}
				{failure}
				mend={(rule, all) => act({ do: 'mend', rule, ...(all ? {} : { ids: [showing.id] }) })}
				edit={(question) => act({ do: 'edit', id: showing.id, version: shown!.version, question })}
			/>
		{/if}
	{/snippet}
</Columns>
{#if data.mayChange}
	<form
		class="bar"
		method="POST"
		use:enhance={() =>
			async ({ update }) => {
				await update({ reset: false });
				picked = new Set();
			}}
	>
		<input type="hidden" name="questions" value={chosenOnes(selection)} />
		<span class="mr-auto" role="status"
			>{#if form?.refused}<b class="broken">{form.refused}</b>
			{:else if selection.length}<b>{count(selection.length, 'question')} selected</b>, {ready.length} of them put right
			{:else if form?.done !== undefined}{form.what === 'take' ? 'Taken in' : 'Left out'}: {count(
					form.done,
					'question'
				)}.
			{:else}<span class="mute">Put a question right on the right, select it, and take it in.</span>{/if}</span
		>
		<button class="btn preset-outlined-brand" name="what" value="leave" disabled={!selection.length}
			>Leave out for good</button
		>
		<button
			class="btn preset-filled-brand"
			name="what"
			value="take"
			disabled={!selection.length || ready.length < selection.length}>Take in {ready.length || ''}</button
		>
	</form>
{/if}
