<script lang="ts">
	import type { Across, WeaveCell } from '$lib/server/banks/weave';
	import {
		columnsOf,
		inColumn,
		linesOf,
		shades,
		sumsOf,
		type Place,
		type Shade,
		type WeaveLine,
		type WovenBank
	} from './weave';
	import WeaveBar from './WeaveBar.svelte';
	import WovenCell from './WovenCell.svelte';
	import { count, figure } from '$lib/ui/words';
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
	const main = $derived(weaves[0]!);
	const other = $derived(weaves[1] ?? null);
	const columns = $derived(columnsOf(weaves));
	const lines = $derived(linesOf(weaves));
	const cells = $derived(
		weaves.map((weave) => new Map(weave.cells.map((cell) => [`${cell.categoryId ?? 0} ${cell.column}`, cell])))
	);
	const isChosen = (place: Place) =>
		chosen?.bankId === place.bankId && chosen.categoryId === place.categoryId && chosen.column === place.column;
	/** What a cell is called by those who do not see it. */
	const named = (line: WeaveLine, column: string, weave: WovenBank, cell: WeaveCell | undefined) =>
		`${line.name}, ${column}${other ? `, ${weave.bank.name}` : ''}: ${
			cell
				? `${count(cell.questions, 'question')}, ${cell[shade]} ${shade}${cell.broken ? `, ${cell.broken} broken` : ''}`
				: 'none'
		}`;
	/** The cell where the keyboard was last: Tab comes to it, or to the first where it is there no more. */
	let last = $state<[number, number]>([0, 0]);
	const isThere = ([line, cell]: [number, number]) =>
		cell < columns.length * weaves.length && lines[line]?.categories[cell % weaves.length] !== undefined;
	const inTurn = $derived(
		isThere(last) ? last : [0, lines[0]?.categories.findIndex((category) => category !== undefined) ?? 0]
	);
	/** Goes with the arrow keys, past what is in only one of two banks. */
	function move(event: KeyboardEvent, line: number, cell: number) {
		const [down, right] = {
			ArrowDown: [1, 0],
			ArrowUp: [-1, 0],
			ArrowRight: [0, 1],
			ArrowLeft: [0, -1]
		}[event.key] ?? [0, 0];
		if (!down && !right) return;
		event.preventDefault();
		for (let [to, at] = [line + down!, cell + right!]; ; [to, at] = [to + down!, at + right!]) {
			const next = table?.querySelector<HTMLButtonElement>(`[data-cell="${to} ${at}"]`);
			if (!next?.disabled) return next?.focus();
		}
	}
</script>

<WeaveBar
	{view}
	{by}
	bind:shade
	bankId={main.bank.id}
	otherId={other?.bank.id ?? null}
	{banks}
	picture={() => weavePicture(table!, `weave of ${main.bank.name}`)}
/>
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
			{#each lines as line, down (line.key)}
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
									<WovenCell
										{weave}
										{by}
										{shade}
										{cell}
										narrow={other !== null}
										picked={categoryId !== undefined && isChosen(place)}
										none={categoryId === undefined}
										label={named(line, column.name, weave, cell)}
										at={[down, at * weaves.length + which]}
										inTurn={inTurn[0] === down && inTurn[1] === at * weaves.length + which}
										onfocus={() => (last = [down, at * weaves.length + which])}
										choose={() => (chosen = place)}
										open={() => cell && open(place)}
										onkeydown={(event) => move(event, down, at * weaves.length + which)}
									/>
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
								{@const sums = sumsOf(weave, line.categories[which], shade)}
								{#if sums.questions}<span class="track" title="{sums.part} of {sums.questions}, {weave.bank.name}"
										><span style="width: {(100 * sums.part) / sums.questions}%"></span></span
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
						{#each columns as column (column.value)}<td>{figure(inColumn(weave, column.value))}</td>{/each}
						<td></td>
					</tr>
				{/each}
			{/if}
		</tbody>
	</table>
</div>

<style>
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
	.pair {
		display: flex;
		gap: 1px;
	}
	.paired thead th:not(.category) {
		width: 90px;
	}
	.paired {
		border-spacing: 8px 0;
	}
	.track + .track {
		margin-top: 4px;
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
