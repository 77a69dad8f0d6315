<script lang="ts">
	import { count, figure } from '$lib/ui/words';
	import { cellAt, type Place, type WovenBank } from './weave';

	/** What is in the cell of a weave that is chosen, and where the bank has holes. */
	let { weaves, chosen, open }: { weaves: WovenBank[]; chosen: Place | null; open: (place: Place) => void } = $props();

	const mostNamed = 8;
	const weave = $derived(weaves.find(({ bank }) => bank.id === chosen?.bankId) ?? weaves[0]!);
	const { tree } = $derived(weave);
	const picked = $derived(chosen && cellAt(weave, chosen));
	const category = $derived(
		chosen && (chosen.categoryId === null ? 'In no category' : tree.find(({ id }) => id === chosen.categoryId)?.name)
	);
	const column = $derived(chosen && weave.columns.find(({ value }) => value === chosen.column)?.name);
	const empty = $derived(tree.filter(({ all }) => all === 0).map(({ name }) => name));
	const alone = $derived(
		weave.columns
			.filter(({ value }) => weave.cells.filter((cell) => cell.column === value).length === 1)
			.map(({ name }) => name)
	);
	const lacks = $derived(
		picked
			? ([
					['broken by a snag', picked.broken],
					['with a snag that breaks or makes doubtful', picked.questions - picked.clean],
					['key not verified', picked.questions - picked.verified],
					['no feedback', picked.questions - picked.feedback]
				] as const)
			: []
	);
</script>

{#if chosen}
	<h2 class="mb-1">{category}, {column}</h2>
	{#if weaves.length > 1}<p class="mute text-[13px]">of {weave.bank.name}</p>{/if}
	{#if picked}
		<p class="mute mb-3">{count(picked.questions, 'question')}, {figure(picked.whole)} of them whole</p>
		<table class="table mb-3">
			<tbody>
				{#each lacks as [words, questions] (words)}<tr><td>{words}</td><td class="number">{figure(questions)}</td></tr
					>{/each}
			</tbody>
		</table>
		<button type="button" class="btn btn-sm preset-filled-brand" onclick={() => open(chosen)}
			>Open these {figure(picked.questions)}</button
		>
	{:else}<p class="mute">Nothing stands here.</p>{/if}
{:else}<p class="mute">
		Choose a cell to see what it lacks; press Enter on it, or click it twice, to open its questions.
	</p>{/if}
<h2 class="mt-7 mb-1">Holes in {weaves.length > 1 ? weave.bank.name : 'this bank'}</h2>
<p class="mute">
	{empty.length
		? `Nothing stands in ${empty.slice(0, mostNamed).join(', ')}${empty.length > mostNamed ? ` and ${empty.length - mostNamed} more` : ''}.`
		: 'Something stands in every category.'}
	{alone.length ? `In one category only: ${alone.join(', ')}.` : ''}
</p>
