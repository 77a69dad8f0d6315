<script lang="ts">
	import type { Across, WeaveCell } from '$lib/server/banks/weave';
	import Mark from '$lib/ui/Mark.svelte';
	import { columnsOf, linesOf, type Place, type Shade, type WeaveLine, type WovenBank } from './weave';
	import { count, figure } from '$lib/ui/words';
	import Download from '@lucide/svelte/icons/download';
	import type { BankView } from './bank.svelte';
	import { weavePicture } from './weave-picture';

	/** Categories down, kinds across: how many questions each cell has, and how whole they are; holes can be seen. */
	let {
		view,
		weaves,
		by,
		banks,
		shade = $bindable(),
		chosen = $bindable(),
		open
	}: {
		view: BankView;
		/** The weave of the bank, and that of another that is laid beside it. */
		weaves: WovenBank[];
		by: Across;
		banks: { id: number; name: string }[];
		shade: Shade;
		chosen: Place | null;
		/** Opens the questions of a cell in the list. */
		open: (place: Place) => void;
	} = $props();

	let table: HTMLTableElement | undefined = $state();
	const shades = [
		['whole', 'whole: clean, verified, with feedback'],
		['verified', 'key verified'],
		['feedback', 'has feedback'],
		['clean', 'no snag that breaks or makes doubtful']
	] as const;
	const across = [
		['kind', 'kinds across'],
		['tag', 'tags across'],
		['difficulty', 'difficulty across'],
		['points', 'points across'],
		['lack', 'what is lacking across']
	] as const;
	const main = $derived(weaves[0]!);
	const other = $derived(weaves[1] ?? null);
	const columns = $derived(columnsOf(weaves));
	const lines = $derived(linesOf(weaves));
	const cells = $derived(
		weaves.map((weave) => new Map(weave.cells.map((cell) => [`${cell.categoryId ?? 0} ${cell.column}`, cell])))
	);
	/** How dark a cell is: by what share of its questions has what is asked, or of its category lacks it. */
	const shareOf = (cell: WeaveCell, weave: WovenBank) => {
		const all = by === 'lack' ? ownOf(weave, cell.categoryId) : cell.questions;
		return all ? (by === 'lack' ? cell.questions : cell[shade]) / all : 0;
	};
	const ownOf = (weave: WovenBank, categoryId: number | null | undefined) =>
		weave.tree.find(({ id }) => id === categoryId)?.own ?? 0;
	const sums = (weave: WovenBank, categoryId: number | null | undefined) => {
		const sum = { questions: 0, part: 0 };
		for (const cell of weave.cells.filter((one) => one.categoryId === categoryId)) {
			sum.questions += cell.questions;
			sum.part += cell[shade];
		}
		return sum;
	};
	const inAll = (weave: WovenBank, column: string) =>
		weave.cells.filter((cell) => cell.column === column).reduce((sum, { questions }) => sum + questions, 0);
	const isChosen = (place: Place) =>
		chosen?.bankId === place.bankId && chosen.categoryId === place.categoryId && chosen.column === place.column;
	/** What a cell is called by those who do not see it. */
	const named = (line: WeaveLine, column: string, weave: WovenBank, cell: WeaveCell | undefined) =>
		`${line.name}, ${column}${other ? `, ${weave.bank.name}` : ''}: ${
			cell
				? `${count(cell.questions, 'question')}, ${cell[shade]} ${shade}${cell.broken ? `, ${cell.broken} broken` : ''}`
				: 'none'
		}`;
	function move(event: KeyboardEvent, row: number, column: number) {
		const steps: Record<string, [number, number]> = {
			ArrowDown: [1, 0],
			ArrowUp: [-1, 0],
			ArrowRight: [0, 1],
			ArrowLeft: [0, -1]
		};
		const step = Object.entries(steps).find(([key]) => key === event.key)?.[1];
		if (!step) return;
		event.preventDefault();
		table?.querySelector<HTMLElement>(`[data-cell="${row + step[0]} ${column + step[1]}"]`)?.focus();
	}
</script>

<div class="bar">
	<select
		class="select"
		aria-label="Across"
		value={by}
		onchange={(event) => view.show({ across: event.currentTarget.value })}
		>{#each across as [value, words] (value)}<option {value}>{words}</option>{/each}</select
	>
	{#if by !== 'lack'}<select class="select" aria-label="Shade" bind:value={shade}
			>{#each shades as [value, words] (value)}<option {value}>shade: {words}</option>{/each}</select
		>{/if}
	<select
		class="select"
		aria-label="Beside"
		value={other ? String(other.bank.id) : ''}
		onchange={(event) => view.show({ beside: event.currentTarget.value || null })}
		><option value="">beside: no other bank</option
		>{#each banks.filter(({ id }) => id !== main.bank.id) as bank (bank.id)}<option value={String(bank.id)}
				>beside: {bank.name}</option
			>{/each}</select
	>
	<button
		type="button"
		class="btn btn-sm preset-outlined-brand ml-auto"
		onclick={() => weavePicture(table!, `weave of ${main.bank.name}`)}><Download size={13} /> As a picture</button
	>
</div>
{#if other}<p class="mute px-[18px] pb-1 text-[13px]">
		In each pair on the left <b>{main.bank.name}</b>, on the right <b>{other.bank.name}</b>.
	</p>{/if}
<div class="field">
	<table
		bind:this={table}
		class:paired={other}
		aria-label="Weave of {weaves.map(({ bank }) => bank.name).join(' beside ')}"
	>
		<thead>
			<tr>
				<th scope="col" class="category">Category</th>
				{#each columns as column (column.value)}<th scope="col"><span class="slanted">{column.name}</span></th>{/each}
				<th scope="col" class="whole-head"
					>{by === 'lack' ? 'questions' : shades.find(([value]) => value === shade)![0]}</th
				>
			</tr>
		</thead>
		<tbody>
			{#each lines as line, row (line.key)}
				<tr>
					<th
						scope="row"
						class="category cut"
						style="padding-left: {line.depth * 18}px"
						class:strong={line.depth === 0}
						title={line.name}>{line.name}</th
					>
					{#each columns as column, at (column.value)}
						<td>
							<span class="pair">
								{#each weaves as weave, which (weave.bank.id)}
									{@const categoryId = line.categories[which]}
									{@const cell =
										categoryId === undefined ? undefined : cells[which]!.get(`${categoryId ?? 0} ${column.value}`)}
									{@const place = { bankId: weave.bank.id, categoryId: categoryId ?? null, column: column.value }}
									<button
										type="button"
										class="cell"
										class:hole={!cell}
										class:dark={cell && shareOf(cell, weave) > 0.45}
										class:picked={categoryId !== undefined && isChosen(place)}
										style={cell ? `--share: ${Math.round(12 + shareOf(cell, weave) * 88)}%` : ''}
										tabindex={row === 0 && at === 0 && which === 0 ? 0 : -1}
										data-cell="{row} {at * weaves.length + which}"
										disabled={categoryId === undefined}
										aria-label={named(line, column.name, weave, cell)}
										title={other ? weave.bank.name : undefined}
										onclick={() => (chosen = place)}
										ondblclick={() => cell && open(place)}
										onkeydown={(event) => {
											move(event, row, at * weaves.length + which);
											if (event.key === 'Enter' && cell && isChosen(place)) open(place);
										}}
										>{#if cell}{figure(cell.questions)}{#if cell.broken}<span class="mark"
													><Mark severity="broken" word="" /></span
												>{/if}{/if}</button
									>
								{/each}
							</span>
						</td>
					{/each}
					{#if by === 'lack'}<td class="share mute"
							>{#each weaves as weave (weave.bank.id)}{@const node = weave.tree.find(
									({ key }) => key === line.key
								)}<span class="block">{node ? figure(node.own) : ''}</span>{/each}</td
						>{:else}<td class="share">
							{#each weaves as weave, which (weave.bank.id)}
								{@const sum = sums(weave, line.categories[which])}
								{#if sum.questions}<span class="track" title="{sum.part} of {sum.questions}, {weave.bank.name}"
										><span style="width: {(100 * sum.part) / sum.questions}%"></span></span
									>
								{:else if !other}<span class="mute"
										>{weave.tree.find(({ key }) => key === line.key)?.all ? '' : 'empty'}</span
									>{/if}
							{/each}
						</td>{/if}
				</tr>
			{/each}
			{#if other}
				{#each weaves as weave (weave.bank.id)}
					<tr class="beside">
						<th scope="row" class="category cut" title={weave.bank.name}>All of {weave.bank.name}</th>
						{#each columns as column (column.value)}<td>{figure(inAll(weave, column.value))}</td>{/each}
						<td></td>
					</tr>
				{/each}
			{/if}
		</tbody>
	</table>
</div>

<style>
	.bar {
		display: flex;
		gap: 8px;
		padding: 4px 18px 8px;
		flex-wrap: wrap;
	}
	.field {
		flex: 1;
		min-height: 0;
		overflow: auto;
		padding: 0 18px;
	}
	table {
		border-collapse: separate;
		border-spacing: 4px 0;
	}
	thead th {
		height: 96px;
		vertical-align: bottom;
		padding: 0 0 6px;
		font-weight: 400;
		font-size: 12.5px;
		color: var(--ink2);
		text-align: left;
	}
	thead {
		position: sticky;
		top: 0;
		background: var(--ground);
		z-index: 1;
	}
	thead th:not(.category) {
		position: relative;
		width: 58px;
	}
	.slanted {
		position: absolute;
		left: 26px;
		bottom: 6px;
		transform: rotate(-32deg);
		transform-origin: 0 100%;
		white-space: nowrap;
	}
	.category {
		min-width: 150px;
		max-width: 220px;
		text-align: left;
		font-weight: 400;
		border-bottom: 1px solid var(--line);
	}
	.strong {
		font-weight: 650;
	}
	td {
		border-bottom: 1px solid var(--line);
		padding: 3px 0;
	}
	.cell {
		position: relative;
		display: grid;
		place-items: center;
		width: 58px;
		height: 32px;
		border-radius: 4px;
		cursor: pointer;
		background: color-mix(in srgb, var(--woad) var(--share), var(--ground));
		color: var(--ink);
		font-weight: 600;
	}
	.cell.dark {
		color: var(--paper);
	}
	.cell.picked {
		outline: 2px solid var(--weld);
		outline-offset: 1px;
	}
	.pair {
		display: flex;
		gap: 1px;
	}
	.paired .cell {
		width: 44px;
	}
	.paired thead th:not(.category) {
		width: 90px;
	}
	.paired {
		border-spacing: 8px 0;
	}
	.cell:disabled::after {
		border-style: none;
	}
	.track + .track {
		margin-top: 4px;
	}
	.hole {
		background: none;
		cursor: default;
	}
	.hole::after {
		content: '';
		width: 11px;
		height: 11px;
		border: 1.5px dashed var(--line2);
		border-radius: 50%;
	}
	.mark {
		position: absolute;
		top: 2px;
		right: 1px;
		background: var(--paper);
		border-radius: 3px;
		line-height: 1;
		padding: 1px 2px;
	}
	.share {
		min-width: 84px;
		padding-left: 8px;
	}
	.track {
		display: block;
		height: 5px;
		border-radius: 3px;
		background: var(--line);
		overflow: hidden;
	}
	.track span {
		display: block;
		height: 100%;
		background: var(--lichen);
	}
	.beside td {
		text-align: center;
		font-size: 13px;
	}
</style>
