<script lang="ts">
	import { Dialog, Portal } from '@skeletonlabs/skeleton-svelte';
	import X from '@lucide/svelte/icons/x';
	import { untrack, type Snippet } from 'svelte';
	import { sheets } from './under-way.svelte';
	import UnderWayBar from './UnderWayBar.svelte';
	import { overSheets } from './over-sheets';

	/** A sheet over the page that asks for something: a title, what is asked, and a button that says what it will do. */
	let {
		open = $bindable(),
		title,
		does,
		ready = true,
		busy = false,
		failure = '',
		act,
		children,
		wide = false
	}: {
		open: boolean;
		title: string;
		/** What the button says. */
		does: string;
		/** Whether all that is needed is there. */
		ready?: boolean;
		busy?: boolean;
		failure?: string;
		act: () => void;
		children: Snippet;
		wide?: boolean;
	} = $props();

	$effect(() => {
		if (!open) return;
		untrack(() => (sheets.open += 1));
		return () => untrack(() => (sheets.open -= 1));
	});
	let form = $state<HTMLFormElement>();
	/** Where one begins: the field that says so (`data-begin`), else the first; in a sheet that has none, what the dialog begins with. */
	const begins = () =>
		form?.querySelector<HTMLElement>('[data-begin]') ??
		form?.querySelector<HTMLElement>(':is(input, select, textarea, [role=textbox]):not(:disabled, [type=hidden])') ??
		null;
</script>

<Dialog
	{open}
	persistentElements={overSheets}
	initialFocusEl={begins}
	onOpenChange={(details) => (open = details.open)}
>
	<Portal>
		<Dialog.Backdrop class="dialog-backdrop" />
		<Dialog.Positioner class="dialog-place">
			<Dialog.Content class="dialog" style="--sheet: {wide ? 760 : 460}px">
				<!-- what is asked is made when it is: a page has several sheets, and most are never opened -->
				{#if open}
					<div class="mb-3 flex justify-between gap-4">
						<Dialog.Title><h2>{title}</h2></Dialog.Title>
						<Dialog.CloseTrigger aria-label="Close" class="cursor-pointer"><X size={18} /></Dialog.CloseTrigger>
					</div>
					<form
						bind:this={form}
						class="flex flex-col gap-3"
						onsubmit={(event) => {
							event.preventDefault();
							if (ready && !busy) act();
						}}
					>
						{@render children()}
						{#if failure}<p class="notice broken" role="alert">{failure}</p>{/if}
						<UnderWayBar inSheet />
						<div class="mt-1 flex justify-end gap-2">
							<button type="button" class="btn btn-sm preset-outlined-brand" onclick={() => (open = false)}
								>Leave it</button
							>
							<button class="btn btn-sm preset-filled-brand" disabled={!ready || busy}>{does}</button>
						</div>
					</form>
				{/if}
			</Dialog.Content>
		</Dialog.Positioner>
	</Portal>
</Dialog>
