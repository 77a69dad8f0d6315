<script lang="ts">
	import { inColumns, type Meaning } from './meanings';

	/** The first rows of a table, with what each of its columns means over it. */
	let {
		rows,
		headings,
		headerRow,
		columnMeaning,
		mean,
		setHeaderRow
	}: {
		rows: string[][];
		headings: string[];
		/** The row that holds the headings, from 1; 0 where none does. */
		headerRow: number;
		columnMeaning: (heading: string) => Meaning | '';
		mean: (heading: string, meaning: Meaning | '') => void;
		setHeaderRow: (row: number) => void;
	} = $props();
</script>

<p class="mt-3">
	<label
		>Headings in row
		<select
			class="select"
			aria-label="Headings in row"
			value={String(headerRow)}
			onchange={(event) => setHeaderRow(Number(event.currentTarget.value))}
			><option value="0">there are none</option>{#each rows as _, at (at)}<option value={String(at + 1)}
					>{at + 1}</option
				>{/each}</select
		></label
	>
</p>
<div class="scroll mt-3">
	<table class="table meant">
		<thead
			><tr
				>{#each headings as heading (heading)}<th class:unmeant={!columnMeaning(heading)}>
						<select
							class="select"
							aria-label="What “{heading}” means"
							value={columnMeaning(heading)}
							onchange={(event) => mean(heading, event.currentTarget.value as Meaning)}
							><option value="">left out</option>{#each Object.entries(inColumns) as [meaning, words] (meaning)}<option
									value={meaning}>{words}</option
								>{/each}</select
						>
					</th>{/each}</tr
			></thead
		>
		<tbody
			>{#each rows as cells, at (at)}<tr class:head={at + 1 === headerRow} class:above={at + 1 < headerRow}
					>{#each cells as cell, place (place)}<td class:unmeant={!columnMeaning(headings[place] ?? '')}>{cell}</td
						>{/each}</tr
				>{/each}</tbody
		>
	</table>
</div>

<style>
	.scroll {
		flex-shrink: 0;
		overflow-x: auto;
		border: 1px solid var(--line);
	}
	.meant td,
	.meant th {
		max-width: 260px;
		min-width: 92px;
		vertical-align: top;
		font-size: 13px;
		border-right: 1px solid var(--line);
	}
	.meant select {
		width: 100%;
		min-width: 120px;
	}
	.meant tr.head td {
		font-weight: 600;
		background: var(--woad-soft);
	}
	.meant tr.above td,
	.unmeant {
		color: var(--ink3);
	}
</style>
