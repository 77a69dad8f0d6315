<script lang="ts">
	import { lookup } from '$core/model/lookup';
	import { enhance } from '$app/forms';
	import { goto, invalidateAll } from '$app/navigation';
	import Strand from '$lib/ui/Strand.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import { ago, bytes, count, dateTime } from '$lib/ui/words';
	import { getUploads, packed } from '$lib/ui/uploads.svelte';
	import { onMount } from 'svelte';

	let { data, form } = $props();
	let shownState = $state('');
	let words = $state('');
	let folderChooser: HTMLInputElement | undefined = $state();
	let chooser: HTMLInputElement | undefined = $state();
	let live = $state<typeof data.loads | null>(null);
	const loads = $derived(
		(live ?? data.loads).filter(
			(one) =>
				one.state !== 'uploading' &&
				(!shownState || one.state === shownState) &&
				(!words || `${one.file_name} ${one.format} ${one.person}`.toLowerCase().includes(words.toLowerCase()))
		)
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

	const uploads = getUploads();
	const sending = $derived(uploads.of(data.course.id));
	let packing = $state('');
	/** A folder that was chosen is one package, with the name of the folder. */
	async function folder(files: FileList | null) {
		const all = [...(files ?? [])];
		if (!all.length) return;
		const { course } = data;
		const name = all[0]!.webkitRelativePath.split('/')[0]!;
		packing = `Packing ${name} …`;
		const inside = new Map(all.map((file) => [file.webkitRelativePath.slice(name.length + 1), file]));
		uploads.add(course, [await packed(name, inside)]);
		packing = '';
	}
	/** How sure we are of the format: what says itself what it is, or what was told by its signs. */
	const sureness = (one: (typeof data.loads)[number]) =>
		/QTI|Cartridge|Barrow/.test(one.format) ? 'it says so itself' : one.format ? 'by its signs' : '';
	const byRecipe = (one: (typeof data.loads)[number]) =>
		/\.(csv|tsv|xlsx|json|jsonl|xml|zip)$/i.test(one.file_name) && !/QTI|Barrow|Cartridge|Word|text/.test(one.format);
	function paste(event: ClipboardEvent) {
		const target = event.target as HTMLElement | null;
		const pasted = event.clipboardData?.getData('text/plain') ?? '';
		if (!data.mayChange || !pasted.trim() || target?.closest('input, textarea, select, [contenteditable]')) return;
		event.preventDefault();
		sessionStorage.setItem('pasted', pasted);
		void goto(`/courses/${data.course.id}/loads/paste`);
	}
	const stateWords = lookup<string>({
		review: 'to review',
		taken: 'taken in',
		undone: 'taken back',
		reading: 'being read',
		waiting: 'waiting',
		stopped: 'stopped',
		failed: 'failed',
		uploading: 'being sent'
	});
	const addressOf = (one: (typeof data.loads)[number]) =>
		`/courses/${data.course.id}/loads${one.state === 'taken' ? `/${one.id}/receipt` : one.state === 'review' || one.state === 'undone' ? `/${one.id}` : ''}`;
	const waits = $derived(data.loads.filter((one) => one.state === 'review').length);
</script>

<svelte:head><title>Loads · {data.course.name} · Yarn Barrow</title></svelte:head>
<svelte:window onpaste={paste} />
<div class="sheet">
	<h1 class="visually-hidden">Loads of {data.course.name}</h1>
	{#if data.mayChange}
		<section class="tray">
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
					QTI 1.2 to 3.0, Common Cartridge, Word, text, tables, JSON and XML of any shape. Nothing goes into the course
					before you have seen it. Templates:
					{#each [['text', 'text'], ['csv', 'CSV'], ['xlsx', 'XLSX']] as [name, said], at (name)}{at ? ', ' : ''}<a
							class="word"
							href="/courses/{data.course.id}/loads/template?as={name}"
							download>{said}</a
						>{/each}.
				</p>
				{#if packing}<p role="status">{packing}</p>{/if}
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
					uploads.add(data.course, event.currentTarget.files ?? []);
					event.currentTarget.value = '';
				}}
			/>
			<input
				bind:this={folderChooser}
				class="visually-hidden"
				tabindex="-1"
				aria-label="A folder to load"
				type="file"
				webkitdirectory
				onchange={async (event) => {
					await folder(event.currentTarget.files);
					event.currentTarget.value = '';
				}}
			/>
			<a class="btn preset-outlined-brand" href="/courses/{data.course.id}/loads/paste">Type or paste text</a>
			<button class="btn preset-outlined-brand" type="button" onclick={() => folderChooser?.click()}>A folder</button>
			<button class="btn preset-filled-brand" type="button" onclick={() => chooser?.click()}>Choose files</button>
		</section>
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
			><col style="width: 20%" /><col style="width: 14%" /><col style="width: 7%" /><col style="width: 8%" /><col
				style="width: 6%"
			/><col /><col style="width: 10%" /><col style="width: 12%" /><col style="width: 152px" /></colgroup
		>
		<thead
			><tr
				><th>File</th><th>What it is</th><th class="number">Size</th><th class="number">Questions</th><th class="number"
					>Snags</th
				><th>State</th><th>By</th><th>When</th><th><span class="visually-hidden">Do</span></th></tr
			></thead
		>
		<tbody>
			{#each sending as one (one.key)}
				<tr>
					<td class="cut"><b>{one.name}</b></td><td class="mute">{one.failure ? '' : 'being sent'}</td><td
						class="number mute">{bytes(one.size)}</td
					><td></td><td></td>
					<td colspan="3"
						>{#if one.failure}<span class="broken" role="alert">{one.failure}</span>{:else}<Strand
								value={one.sent / one.size}
								label="Sending {one.name}"
							/>
							<span class="mute"
								>{one.state === 'waiting'
									? `the connection is lost; it goes on from ${bytes(one.sent)} as soon as it is back`
									: one.ending
										? 'the last piece is on its way; then the file is put away'
										: `sending, ${bytes(one.sent)} of ${bytes(one.size)}`}</span
							>{/if}</td
					>
					<td class="number"
						><button class="btn btn-sm preset-outlined-brand" onclick={() => uploads.clear(one.key)}
							>{one.failure ? 'Clear' : 'Stop'}</button
						></td
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
						{#if one.twin_id}{@const twin = data.loads.find((other) => other.id === one.twin_id)}{#if twin}<span
									class="doubtful block text-[12.5px]"
									>the same file as <a class="word" href={addressOf(twin)}>{twin.file_name}, {stateWords[twin.state]}</a
									></span
								>{/if}{/if}
					</td>
					{#if one.state === 'failed' && !one.questions_found}<td colspan="3" class="mute">{one.failure}</td>
					{:else}<td class="mute" title={sureness(one)}
							>{one.format}{#if one.format && sureness(one) === 'by its signs'}<span class="faint">, guessed</span
								>{/if}</td
						>
						<td class="number mute">{bytes(one.size)}</td>
						<td class="number"
							>{one.questions_found
								? one.questions_found.toLocaleString('en')
								: '–'}{#if one.state === 'reading' && one.questions_found}<span class="mute"> so far</span>{/if}</td
						>{/if}
					<td class="number {one.snags_found ? 'doubtful' : 'mute'}"
						>{one.state === 'reading' || one.state === 'waiting' ? '–' : one.snags_found.toLocaleString('en')}</td
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
									? `reading, ${Math.floor((100 * one.bytes_read) / Math.max(1, one.bytes_total))} %`
									: 'putting things in order'}</span
							>
						{:else if one.state === 'review'}<b>to review</b>
						{:else if one.state === 'taken'}<Mark severity="whole" word="taken in" />
							<span class="mute"
								>{one.taken.toLocaleString('en')} of {one.questions_found.toLocaleString('en')}{one.aside
									? `, ${one.aside.toLocaleString('en')} set aside`
									: ''}</span
							>
						{:else if one.state === 'undone'}taken back <span class="mute">and to review again</span>
						{:else if one.state === 'stopped'}<span class="mute">stopped; nothing was kept of the reading</span>
						{:else}<Mark severity="broken" word="failed" />
							{#if one.questions_found}<span>{one.failure}</span>{/if}{/if}
					</td>
					<td class="mute">{one.person}</td>
					<td class="mute whitespace-nowrap"
						>{dateTime(one.created)}<span class="faint block text-[12.5px]">{ago(one.created)}</span></td
					>
					<td class="number">
						{#if data.mayChange}
							{#if one.state === 'waiting' || one.state === 'reading'}
								<form method="POST" action="?/stop" use:enhance>
									<input type="hidden" name="load" value={one.id} /><button
										class="btn btn-sm preset-outlined-brand"
										aria-label="Stop reading {one.file_name}">Stop</button
									>
								</form>
							{:else if one.state === 'stopped' || one.state === 'failed'}
								<form method="POST" action="?/again" use:enhance>
									<input type="hidden" name="load" value={one.id} /><button
										class="btn btn-sm preset-outlined-brand"
										aria-label="Read {one.file_name} again">Again</button
									>
								</form>
								<form method="POST" action="?/away" use:enhance class="mt-1">
									<input type="hidden" name="load" value={one.id} /><button
										class="btn btn-sm preset-outlined-brand"
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
									class="btn btn-sm preset-filled-brand"
									href="/courses/{data.course.id}/loads/{one.id}"
									aria-label="Review {one.file_name}">Review</a
								>{/if}
						{/if}
					</td>
				</tr>
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
	.tray {
		display: flex;
		align-items: center;
		gap: 24px;
		padding: 20px 24px;
		background: var(--paper);
		border: 1.5px dashed var(--line2);
		border-radius: 8px;
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
	button.input {
		cursor: pointer;
	}
	button.input[aria-pressed='true'] {
		border-color: var(--woad);
		background: var(--woad-soft);
	}
</style>
