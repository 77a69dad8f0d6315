<script lang="ts">
	import type { CategoryNode } from '$lib/server/banks/tree';
	import type { Across, Weave, WeaveCell } from '$lib/server/banks/weave';
	import Mark from '$lib/ui/Mark.svelte';
	import type { Place, Shade } from './weave';
	import { count, figure } from '$lib/ui/words';
	import Download from '@lucide/svelte/icons/download';
	import type { BankView } from './bank.svelte';
	import { weavePicture } from './weave-picture';

	/** Categories down, kinds across: how many questions each cell has, and how whole they are; holes can be seen. */
	let {
		view,
		weaves,
		by,
		trees,
		banks,
		shade = $bindable(),
		chosen = $bindable(),
		open
	}: {
		view: BankView;
		weaves: Weave[];
		by: Across;
		/** The tree of the bank itself; another beside it has its own cells by the names of its categories. */
		trees: CategoryNode[];
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
		['points', 'points across']
	] as const;
	const main = $derived(weaves[0]!);
	const other = $derived(weaves[1] ?? null);
	const columns = $derived.by(() => {
		const all = new Map([...main.columns, ...(other?.columns ?? [])].map((column) => [column.value, column]));
		return [...all.values()];
	});
	const cellsOf = (weave: Weave) =>
		new Map(weave.cells.map((cell) => [`${cell.categoryId ?? 0} ${cell.column}`, cell]));
	const cells = $derived(cellsOf(main));
	const loose = $derived(main.cells.some(({ categoryId }) => categoryId === null));
	const lines = $derived([
		...(loose ? [{ id: null as number | null, name: 'In no category', depth: 0, all: 0 }] : []),
		...trees.map(({ id, name, depth, all }) => ({ id: id as number | null, name, depth, all }))
	]);
	const shareOf = (cell: WeaveCell) => (cell.questions ? cell[shade] / cell.questions : 0);
	const sums = (of: (cell: WeaveCell) => boolean) => {
		const sum = { questions: 0, part: 0 };
		for (const cell of main.cells.filter(of)) {
			sum.questions += cell.questions;
			sum.part += cell[shade];
		}
		return sum;
	};
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
	/** The other bank's count of a cell, by the name of the category. */
	const besides = $derived.by(() => {
		if (!other) return null;
		const found = new Map<string, number>();
		for (const cell of other.cells) found.set(cell.column, (found.get(cell.column) ?? 0) + cell.questions);
		return found;
	});
</script>

<div class="bar">
	<select
		class="select"
		aria-label="Across"
		value={by}
		onchange={(event) => view.show({ across: event.currentTarget.value })}
		>{#each across as [value, words] (value)}<option {value}>{words}</option>{/each}</select
	>
	<select class="select" aria-label="Shade" bind:value={shade}
		>{#each shades as [value, words] (value)}<option {value}>shade: {words}</option>{/each}</select
	>
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
<div class="field">
	<table bind:this={table} aria-label="Weave of {main.bank.name}">
		<thead>
			<tr>
				<th scope="col" class="category">Category</th>
				{#each columns as column (column.value)}<th scope="col"><span class="slanted">{column.name}</span></th>{/each}
				<th scope="col" class="whole-head">{shades.find(([value]) => value === shade)![0]}</th>
			</tr>
		</thead>
		<tbody>
			{#each lines as line, row (line.id)}
				{@const sum = sums((cell) => cell.categoryId === line.id)}
				<tr>
					<th
						scope="row"
						class="category cut"
						style="padding-left: {line.depth * 18}px"
						class:strong={line.depth === 0}
						title={line.name}>{line.name}</th
					>
					{#each columns as column, at (column.value)}
						{@const cell = cells.get(`${line.id ?? 0} ${column.value}`)}
						<td>
							<button
								type="button"
								class="cell"
								class:hole={!cell}
								class:dark={cell && shareOf(cell) > 0.45}
								class:picked={chosen?.categoryId === line.id && chosen.column === column.value}
								style={cell ? `--share: ${Math.round(12 + shareOf(cell) * 88)}%` : ''}
								tabindex={row === 0 && at === 0 ? 0 : -1}
								data-cell="{row} {at}"
								aria-label={cell
									? `${line.name}, ${column.name}: ${count(cell.questions, 'question')}, ${cell[shade]} ${shade}${cell.broken ? `, ${cell.broken} broken` : ''}`
									: `${line.name}, ${column.name}: none`}
								onclick={() => (chosen = { categoryId: line.id, column: column.value })}
								ondblclick={() => cell && open({ categoryId: line.id, column: column.value })}
								onkeydown={(event) => {
									move(event, row, at);
									if (event.key === 'Enter' && cell && chosen?.categoryId === line.id && chosen.column === column.value)
										open({ categoryId: line.id, column: column.value });
								}}
								>{#if cell}{figure(cell.questions)}{#if cell.broken}<span class="mark"
											><Mark severity="broken" word="" /></span
										>{/if}{/if}</button
							>
						</td>
					{/each}
					<td class="share">
						{#if sum.questions}<span class="track" title="{sum.part} of {sum.questions}"
								><span style="width: {(100 * sum.part) / sum.questions}%"></span></span
							>
						{:else}<span class="mute">{line.all ? '' : 'empty'}</span>{/if}
					</td>
				</tr>
			{/each}
			{#if besides}
				<tr class="beside">
					<th scope="row" class="category">All of {main.bank.name}</th>
					{#each columns as column (column.value)}<td
							>{figure(sums((cell) => cell.column === column.value).questions)}</td
						>{/each}
					<td></td>
				</tr>
				<tr class="beside">
					<th scope="row" class="category">All of {other!.bank.name}</th>
					{#each columns as column (column.value)}<td>{figure(besides.get(column.value) ?? 0)}</td>{/each}
					<td></td>
				</tr>
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
