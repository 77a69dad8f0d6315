<script lang="ts">
	import { goto } from '$app/navigation';
	import Strand from '$lib/ui/Strand.svelte';
	import { bytes, count } from '$lib/ui/words';
	import { getUploads } from '$lib/ui/uploads.svelte';
	import { onMount } from 'svelte';
	import DropTray from './DropTray.svelte';
	import LoadLine from './LoadLine.svelte';
	import { refresh } from '$lib/ui/refresh';

	let { data, form } = $props();
	let shownState = $state('');
	let words = $state('');
	let live = $state<typeof data.loads | null>(null);
	const loads = $derived(
		(live ?? data.loads).filter(
			(load) =>
				load.state !== 'uploading' &&
				(!shownState || load.state === shownState) &&
				(!words || `${load.file_name} ${load.format} ${load.person}`.toLowerCase().includes(words.toLowerCase()))
		)
	);
	const busy = $derived(loads.some((load) => load.state === 'waiting' || load.state === 'reading'));
	$effect(() => {
		void data.loads;
		live = null;
	});

	onMount(() => {
		const timer = setInterval(async () => {
			if (!busy) return;
			const answer = await fetch(`/courses/${data.course.id}/loads/status`).catch(() => null);
			if (!answer?.ok) return;
			const found = (await answer.json()) as { loads: typeof data.loads };
			live = found.loads;
			if (!found.loads.some((load) => load.state === 'waiting' || load.state === 'reading')) await refresh();
		}, 700);
		return () => clearInterval(timer);
	});

	const uploads = getUploads();
	const sending = $derived(uploads.of(data.course.id));
	function paste(event: ClipboardEvent) {
		const target = event.target as HTMLElement | null;
		const pasted = event.clipboardData?.getData('text/plain') ?? '';
		if (!data.mayChange || !pasted.trim() || target?.closest('input, textarea, select, [contenteditable]')) return;
		event.preventDefault();
		sessionStorage.setItem('pasted', pasted);
		void goto(`/courses/${data.course.id}/loads/paste`);
	}
	const waits = $derived(data.loads.filter((load) => load.state === 'review').length);
</script>

<svelte:head><title>Loads · {data.course.name} · Yarn Barrow</title></svelte:head>
<svelte:window onpaste={paste} />
<div class="sheet">
	<h1 class="visually-hidden">Loads of {data.course.name}</h1>
	{#if data.mayChange}
		<DropTray course={data.course} {uploads} />
	{/if}
	{#if form?.message}<p class="notice broken" role="alert">{form.message}</p>{/if}

	<div class="mb-1 mt-5 flex items-center gap-3">
		<h2 class="mr-auto">Loads of this course</h2>
		{#if data.aside}<a class="word" href="/courses/{data.course.id}/loads/aside"
				>{data.aside.toLocaleString('en')} set aside</a
			>{/if}
		<input class="input w-44" type="search" placeholder="find a load" aria-label="Find a load" bind:value={words} />
		<button
			class="input"
			aria-pressed={shownState === 'review'}
			onclick={() => (shownState = shownState === 'review' ? '' : 'review')}><b>{waits}</b> to review</button
		>
		<select class="select" aria-label="State" bind:value={shownState}>
			<option value="">any state</option>
			<option value="review">to review</option>
			<option value="taken">taken in</option>
			<option value="undone">taken back</option>
			<option value="reading">being read</option>
			<option value="stopped">stopped</option>
			<option value="failed">failed</option>
		</select>
	</div>
	<table class="table even">
		<colgroup
			><col style="width: 17%" /><col style="width: 12%" /><col style="width: 7%" /><col style="width: 9%" /><col
				style="width: 6%"
			/><col style="width: 14%" /><col style="width: 9%" /><col style="width: 12%" /><col
				style="width: 152px"
			/></colgroup
		>
		<thead
			><tr
				><th>File</th><th>What it is</th><th class="number">Size</th><th class="number">Questions</th><th class="number"
					>Snags</th
				><th>State</th><th>By</th><th>When</th><th><span class="visually-hidden">Do</span></th></tr
			></thead
		>
		<tbody>
			{#each sending as upload (upload.key)}
				<tr>
					<td class="cut"><b>{upload.name}</b></td><td class="mute">{upload.failure ? '' : 'being sent'}</td><td
						class="number mute">{bytes(upload.size)}</td
					><td></td><td></td>
					<td colspan="3"
						>{#if upload.failure}<span class="broken" role="alert">{upload.failure}</span>{:else}<Strand
								value={upload.sent / upload.size}
								label="Sending {upload.name}"
							/>
							<span class="mute"
								>{upload.state === 'waiting'
									? `the connection is lost; it goes on from ${bytes(upload.sent)} as soon as it is back`
									: upload.ending
										? 'the last piece is on its way; then the file is put away'
										: `sending, ${bytes(upload.sent)} of ${bytes(upload.size)}`}</span
							>{/if}</td
					>
					<td class="number"
						><button class="btn btn-sm preset-outlined-brand" onclick={() => uploads.clear(upload.key)}
							>{upload.failure ? 'Clear' : 'Stop'}</button
						></td
					>
				</tr>
			{/each}
			{#each loads as load (load.id)}
				<LoadLine
					{load}
					twin={data.loads.find((other) => other.id === load.twin_id)}
					courseId={data.course.id}
					mayChange={data.mayChange}
				/>
			{:else}
				{#if !sending.length}<tr
						><td colspan="9" class="mute py-8"
							>{shownState || words
								? 'No load fits what you asked for.'
								: 'No load has come in yet. Drop a package anywhere on this page; it is read at once, and shown to you before anything is taken in.'}</td
						></tr
					>{/if}
			{/each}
		</tbody>
	</table>
	{#if loads.length}<p class="faint mt-3">{count(loads.length, 'load')}</p>{/if}
</div>

<style>
	.even {
		table-layout: fixed;
	}
	td {
		vertical-align: middle !important;
		padding-block: 7px !important;
	}
	button.input {
		cursor: pointer;
	}
	button.input[aria-pressed='true'] {
		border-color: var(--woad);
		background: var(--woad-soft);
	}
</style>
