<script lang="ts">
	import { enhance } from '$app/forms';
	import { goto, invalidateAll } from '$app/navigation';
	import Strand from '$lib/ui/Strand.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import { ago, bytes, count } from '$lib/ui/words';
	import { onMount } from 'svelte';

	let { data, form } = $props();
	interface Upload {
		key: number;
		name: string;
		size: number;
		sent: number;
		failure: string;
		request: XMLHttpRequest | null;
	}
	let uploads = $state<Upload[]>([]);
	let over = $state(false);
	let shownState = $state('');
	let chooser: HTMLInputElement | undefined = $state();
	let live = $state<typeof data.loads | null>(null);
	const loads = $derived(
		(live ?? data.loads).filter((one) => one.state !== 'uploading' && (!shownState || one.state === shownState))
	);
	const busy = $derived(loads.some((one) => one.state === 'waiting' || one.state === 'reading'));
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
			if (!found.loads.some((one) => one.state === 'waiting' || one.state === 'reading')) await invalidateAll();
		}, 700);
		return () => clearInterval(timer);
	});

	let next = 0;
	function send(files: Iterable<File>) {
		if (!data.mayChange) return;
		for (const file of files) {
			next += 1;
			const key = next;
			const too =
				file.size > data.limit
					? `It is larger than ${bytes(data.limit)}, which is the most that is taken here.`
					: file.size === 0
						? 'It is empty.'
						: '';
			const request = too ? null : new XMLHttpRequest();
			uploads.push({ key, name: file.name, size: file.size, sent: 0, failure: too, request });
			if (!request) continue;
			const mine = () => uploads.find((one) => one.key === key);
			request.upload.onprogress = (event) => {
				const one = mine();
				if (one) one.sent = event.loaded;
			};
			request.onload = async () => {
				if (request.status === 200) {
					uploads = uploads.filter((one) => one.key !== key);
					await invalidateAll();
				} else failed(key, request.responseText);
			};
			request.onerror = () => failed(key, '');
			request.onabort = () => (uploads = uploads.filter((one) => one.key !== key));
			request.open(
				'PUT',
				`/courses/${data.course.id}/loads/upload?name=${encodeURIComponent(file.name)}&size=${file.size}`
			);
			request.setRequestHeader('Accept', 'application/json');
			request.send(file);
		}
	}
	function failed(key: number, answer: string) {
		const one = uploads.find((other) => other.key === key);
		if (!one) return;
		let words = '';
		try {
			words = (JSON.parse(answer) as { message?: string }).message ?? '';
		} catch {
			// no words came with the answer
		}
		one.failure = words || 'The connection was lost, and nothing of the file was kept. Drop it again.';
		one.request = null;
	}
	function drop(event: DragEvent) {
		over = false;
		if (event.dataTransfer?.files.length) {
			event.preventDefault();
			send(event.dataTransfer.files);
		}
	}
	const byRecipe = (one: (typeof data.loads)[number]) =>
		/\.(csv|tsv|xlsx|json|jsonl|xml)$/i.test(one.file_name) && !/QTI|Barrow/.test(one.format);
	function paste(event: ClipboardEvent) {
		const target = event.target as HTMLElement | null;
		const pasted = event.clipboardData?.getData('text/plain') ?? '';
		if (!data.mayChange || !pasted.trim() || target?.closest('input, textarea, select')) return;
		event.preventDefault();
		sessionStorage.setItem('pasted', pasted);
		void goto(`/courses/${data.course.id}/loads/paste`);
	}
	const waits = $derived(data.loads.filter((one) => one.state === 'review').length);
</script>

<svelte:head><title>Loads · {data.course.name} · Yarn Barrow</title></svelte:head>
<svelte:window
	ondragover={(event) => {
		if (event.dataTransfer?.types.includes('Files')) {
			event.preventDefault();
			over = true;
		}
	}}
	ondragleave={(event) => !event.relatedTarget && (over = false)}
	ondrop={drop}
	onpaste={paste}
/>
<div class="sheet">
	<h1 class="visually-hidden">Loads of {data.course.name}</h1>
	{#if data.mayChange}
		<section class="tray" class:over>
			<svg
				viewBox="0 0 60 42"
				aria-hidden="true"
				fill="none"
				stroke="var(--woad)"
				stroke-width="2.2"
				stroke-linecap="round"
				stroke-linejoin="round"
				><path d="M3 14H43L37 30H11ZM43 14L57 8M33 37H41" /><circle cx="17" cy="36" r="4.5" /><circle
					cx="19"
					cy="10"
					r="6"
				/><circle cx="31" cy="8" r="7" /></svg
			>
			<div class="flex-1">
				<h2>Drop files here</h2>
				<p class="mute">
					QTI 1.2 to 3.0 and Common Cartridge, Word, text, tables, JSON and XML of any shape. Nothing goes into the
					course before you have seen it.
				</p>
			</div>
			<input
				bind:this={chooser}
				class="visually-hidden"
				tabindex="-1"
				aria-label="Files to load"
				type="file"
				multiple
				accept=".zip,.xml,.imscc,.docx,.txt,.md,.csv,.tsv,.xlsx,.json,.jsonl"
				onchange={(event) => {
					send(event.currentTarget.files ?? []);
					event.currentTarget.value = '';
				}}
			/>
			<a class="button ghost" href="/courses/{data.course.id}/loads/paste">Type or paste text</a>
			<button class="button" type="button" onclick={() => chooser?.click()}>Choose files</button>
		</section>
	{/if}
	{#if form?.message}<p class="notice broken" role="alert">{form.message}</p>{/if}

	<div class="mb-1 mt-5 flex items-center gap-3">
		<h2 class="mr-auto">Loads of this course</h2>
		<button
			class="field"
			aria-pressed={shownState === 'review'}
			onclick={() => (shownState = shownState === 'review' ? '' : 'review')}><b>{waits}</b> to review</button
		>
		<select class="field" aria-label="State" bind:value={shownState}>
			<option value="">any state</option>
			<option value="review">to review</option>
			<option value="taken">taken in</option>
			<option value="undone">taken back</option>
			<option value="reading">being read</option>
			<option value="stopped">stopped</option>
			<option value="failed">failed</option>
		</select>
	</div>
	<table class="rows even">
		<colgroup
			><col style="width: 21%" /><col style="width: 15%" /><col style="width: 7%" /><col style="width: 9%" /><col
				style="width: 6%"
			/><col /><col style="width: 10%" /><col style="width: 9%" /><col style="width: 132px" /></colgroup
		>
		<thead
			><tr
				><th>File</th><th>What it is</th><th class="number">Size</th><th class="number">Questions</th><th class="number"
					>Snags</th
				><th>State</th><th>By</th><th>When</th><th><span class="visually-hidden">Do</span></th></tr
			></thead
		>
		<tbody>
			{#each uploads as one (one.key)}
				<tr>
					<td class="cut"><b>{one.name}</b></td><td class="mute">{one.failure ? '' : 'being sent'}</td><td
						class="number mute">{bytes(one.size)}</td
					><td></td><td></td>
					<td colspan="3"
						>{#if one.failure}<span class="broken" role="alert">{one.failure}</span>{:else}<Strand
								value={one.sent / one.size}
								label="Sending {one.name}"
							/>
							<span class="mute">sending, {bytes(one.sent)} of {bytes(one.size)}</span>{/if}</td
					>
					<td class="number"
						>{#if one.failure}<button
								class="button ghost small"
								onclick={() => (uploads = uploads.filter((other) => other !== one))}>Clear</button
							>{:else}<button class="button ghost small" onclick={() => one.request?.abort()}>Stop</button>{/if}</td
					>
				</tr>
			{/each}
			{#each loads as one (one.id)}
				<tr>
					<td class="cut" title={one.file_name}>
						{#if one.state === 'review' || one.state === 'undone' || (one.state === 'failed' && one.snags_found)}<a
								class="word"
								href="/courses/{data.course.id}/loads/{one.id}"><b>{one.file_name}</b></a
							>
						{:else if one.state === 'taken'}<a class="word" href="/courses/{data.course.id}/loads/{one.id}/receipt"
								><b>{one.file_name}</b></a
							>
						{:else}<b>{one.file_name}</b>{/if}
					</td>
					<td class="mute">{one.format}</td>
					<td class="number mute">{bytes(one.size)}</td>
					<td class="number"
						>{one.questions_found
							? one.questions_found.toLocaleString('en')
							: '–'}{#if one.state === 'reading' && one.questions_found}<span class="mute"> so far</span>{/if}</td
					>
					<td class="number {one.snags_found ? 'doubtful' : 'mute'}"
						>{one.state === 'reading' || one.state === 'waiting' ? '–' : one.snags_found}</td
					>
					<td>
						{#if one.state === 'waiting'}<Strand value={0} label="Reading {one.file_name}" />
							<span class="mute">waiting to be read</span>
						{:else if one.state === 'reading'}<Strand
								value={one.bytes_total ? one.bytes_read / one.bytes_total : null}
								label="Reading {one.file_name}"
							/>
							<span class="mute"
								>{one.bytes_read < one.bytes_total || !one.bytes_total
									? `reading, ${bytes(one.bytes_read)} of ${bytes(one.bytes_total)}`
									: 'putting things in order'}</span
							>
						{:else if one.state === 'review'}<b>to review</b>
						{:else if one.state === 'taken'}<Mark severity="whole" word="taken in" />
							<span class="mute">{one.taken} of {one.questions_found}{one.aside ? `, ${one.aside} set aside` : ''}</span
							>
						{:else if one.state === 'undone'}taken back <span class="mute">and to review again</span>
						{:else if one.state === 'stopped'}<span class="mute">stopped; nothing was kept of the reading</span>
						{:else}<Mark severity="broken" word="failed" /> <span>{one.failure}</span>{/if}
					</td>
					<td class="mute">{one.person}</td>
					<td class="mute" title={new Date(one.created).toLocaleString('en-GB')}>{ago(one.created)}</td>
					<td class="number">
						{#if data.mayChange}
							{#if one.state === 'waiting' || one.state === 'reading'}
								<form method="POST" action="?/stop" use:enhance>
									<input type="hidden" name="load" value={one.id} /><button
										class="button ghost small"
										aria-label="Stop reading {one.file_name}">Stop</button
									>
								</form>
							{:else if one.state === 'stopped' || one.state === 'failed'}
								<form method="POST" action="?/again" use:enhance>
									<input type="hidden" name="load" value={one.id} /><button
										class="button ghost small"
										aria-label="Read {one.file_name} again">Again</button
									>
								</form>
								<form method="POST" action="?/away" use:enhance class="mt-1">
									<input type="hidden" name="load" value={one.id} /><button
										class="button ghost small"
										aria-label="Throw {one.file_name} away">Discard</button
									>
								</form>
							{/if}
							{#if byRecipe(one) && ['review', 'undone', 'failed'].includes(one.state)}<a
									class="word mr-2 text-[13px]"
									href="/courses/{data.course.id}/loads/{one.id}/recipe"
									aria-label="Recipe for {one.file_name}">Recipe</a
								>{/if}
							{#if one.state === 'review'}<a
									class="button small"
									href="/courses/{data.course.id}/loads/{one.id}"
									aria-label="Review {one.file_name}">Review</a
								>{/if}
						{/if}
					</td>
				</tr>
			{:else}
				{#if !uploads.length}<tr
						><td colspan="9" class="mute py-8"
							>{shownState
								? 'No load is in that state.'
								: 'No load has come in yet. Drop a package anywhere on this page; it is read at once, and shown to you before anything is taken in.'}</td
						></tr
					>{/if}
			{/each}
		</tbody>
	</table>
	{#if loads.length}<p class="faint mt-3">{count(loads.length, 'load')}</p>{/if}
</div>

<style>
	.tray {
		display: flex;
		align-items: center;
		gap: 24px;
		padding: 20px 24px;
		background: var(--paper);
		border: 1.5px dashed var(--line2);
		border-radius: 8px;
	}
	.tray.over {
		border-color: var(--woad);
		background: var(--woad-soft);
	}
	.tray > svg {
		width: 60px;
	}
	.even {
		table-layout: fixed;
	}
	td {
		vertical-align: middle !important;
		padding-block: 7px !important;
	}
	button.field {
		cursor: pointer;
	}
	button.field[aria-pressed='true'] {
		border-color: var(--woad);
		background: var(--woad-soft);
	}
</style>
