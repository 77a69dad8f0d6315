<script lang="ts">
	import { Popover } from '@skeletonlabs/skeleton-svelte';
	import ArrowUp from '@lucide/svelte/icons/arrow-up';
	import ArrowDown from '@lucide/svelte/icons/arrow-down';
	import Columns3 from '@lucide/svelte/icons/columns-3';
	import { columns, shownColumns } from './columns';

	/** Which columns the table has, and in which order. */
	let { chosen, choose }: { chosen: string[]; choose: (ids: string[]) => void } = $props();

	let open = $state(false);
	const shown = $derived(shownColumns(chosen).map(({ id }) => id));
	const others = $derived(columns.filter(({ id }) => !shown.includes(id)));
	function move(at: number, by: number) {
		const next = [...shown];
		const [one] = next.splice(at, 1);
		next.splice(at + by, 0, one!);
		choose(next);
	}
	const nameOf = (id: string) => columns.find((column) => column.id === id)!.name;
</script>

<Popover {open} onOpenChange={(details) => (open = details.open)} positioning={{ placement: 'bottom-end' }}>
	<Popover.Trigger class="btn btn-sm preset-outlined-brand" aria-label="Columns" title="Columns"
		><Columns3 size={13} /></Popover.Trigger
	>
	<Popover.Positioner class="over">
		<Popover.Content class="panel p-3 w-[240px]" aria-label="Columns">
			{#each shown as id, at (id)}
				<div class="flex items-center gap-2 py-[2px]">
					<label class="flex flex-1 items-center gap-2"
						><input
							type="checkbox"
							class="checkbox"
							checked
							disabled={id === 'title'}
							onchange={() => choose(shown.filter((other) => other !== id))}
						/>
						{nameOf(id)}</label
					>
					<button
						type="button"
						class="cursor-pointer disabled:opacity-30"
						disabled={at === 0}
						aria-label="{nameOf(id)} further left"
						onclick={() => move(at, -1)}><ArrowUp size={14} /></button
					>
					<button
						type="button"
						class="cursor-pointer disabled:opacity-30"
						disabled={at === shown.length - 1}
						aria-label="{nameOf(id)} further right"
						onclick={() => move(at, 1)}><ArrowDown size={14} /></button
					>
				</div>
			{/each}
			<div class="mt-1 border-t border-(--line) pt-1">
				{#each others as { id, name } (id)}
					<label class="flex items-center gap-2 py-[2px]"
						><input type="checkbox" class="checkbox" checked={false} onchange={() => choose([...shown, id])} />
						{name}</label
					>
				{/each}
			</div>
		</Popover.Content>
	</Popover.Positioner>
</Popover>
