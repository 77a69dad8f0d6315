<script lang="ts">
	import { lookup } from '$core/model/lookup';
	import type { Load } from '$lib/server/loads/loads';
	import Mark from '$lib/ui/Mark.svelte';
	import Strand from '$lib/ui/Strand.svelte';
	import { ago, bytes, dateTime } from '$lib/ui/words';
	import { enhance } from '$lib/ui/refresh';

	/** A load as a line of the list: what it is, how far it has come, and what can be done with it. */
	let {
		load,
		twin,
		courseId,
		mayChange
	}: {
		load: Load;
		/** An earlier load that brought the very same file. */
		twin: Load | undefined;
		courseId: number;
		mayChange: boolean;
	} = $props();

	/** How sure we are of the format: what says itself what it is, or what was told by its signs. */
	const sureness = (load: Load) =>
		/QTI|Cartridge|Barrow/.test(load.format) ? 'it says so itself' : load.format ? 'by its signs' : '';
	const byRecipe = (load: Load) =>
		/\.(csv|tsv|xlsx|json|jsonl|xml|zip)$/i.test(load.file_name) && !/QTI|Barrow|Cartridge|Word|text/.test(load.format);
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
	const addressOf = (load: Load) =>
		`/courses/${courseId}/loads${load.state === 'taken' ? `/${load.id}/receipt` : load.state === 'review' || load.state === 'undone' ? `/${load.id}` : ''}`;
</script>

<tr>
	<td class="cut" title={load.file_name}>
		{#if load.state === 'review' || load.state === 'undone' || (load.state === 'failed' && load.snags_found)}<a
				class="word"
				href="/courses/{courseId}/loads/{load.id}"><b>{load.file_name}</b></a
			>
		{:else if load.state === 'taken'}<a class="word" href="/courses/{courseId}/loads/{load.id}/receipt"
				><b>{load.file_name}</b></a
			>
		{:else}<b>{load.file_name}</b>{/if}
		{#if twin}<span class="doubtful block text-[12.5px]"
				>the same file as <a class="word" href={addressOf(twin)}>{twin.file_name}, {stateWords[twin.state]}</a></span
			>{/if}
	</td>
	{#if load.state === 'failed' && !load.questions_found}<td colspan="3" class="mute">{load.failure}</td>
	{:else}<td class="mute" title={sureness(load)}
			>{load.format}{#if load.format && sureness(load) === 'by its signs'}<span class="faint">, guessed</span>{/if}</td
		>
		<td class="number mute">{bytes(load.size)}</td>
		<td class="number"
			>{load.questions_found
				? load.questions_found.toLocaleString('en')
				: '–'}{#if load.state === 'reading' && load.questions_found}<span class="mute"> so far</span>{/if}</td
		>{/if}
	<td class="number {load.snags_found ? 'doubtful' : 'mute'}"
		>{load.state === 'reading' || load.state === 'waiting' ? '–' : load.snags_found.toLocaleString('en')}</td
	>
	<td>
		{#if load.state === 'waiting'}<Strand value={0} label="Reading {load.file_name}" />
			<span class="mute">waiting to be read</span>
		{:else if load.state === 'reading'}<Strand
				value={load.bytes_total ? load.bytes_read / load.bytes_total : null}
				label="Reading {load.file_name}"
			/>
			<span class="mute"
				>{load.bytes_read < load.bytes_total || !load.bytes_total
					? `reading, ${Math.floor((100 * load.bytes_read) / Math.max(1, load.bytes_total))} %`
					: 'putting things in order'}</span
			>
		{:else if load.state === 'review'}<b>to review</b>
		{:else if load.state === 'taken'}<Mark severity="whole" word="taken in" />
			<span class="mute"
				>{load.taken.toLocaleString('en')} of {load.questions_found.toLocaleString('en')}{load.aside
					? `, ${load.aside.toLocaleString('en')} set aside`
					: ''}</span
			>
		{:else if load.state === 'undone'}taken back <span class="mute">and to review again</span>
		{:else if load.state === 'stopped'}<span class="mute">stopped; nothing was kept of the reading</span>
		{:else}<Mark severity="broken" word="failed" />
			{#if load.questions_found}<span>{load.failure}</span>{/if}{/if}
	</td>
	<td class="mute">{load.person}</td>
	<td class="mute whitespace-nowrap"
		>{dateTime(load.created)}<span class="faint block text-[12.5px]">{ago(load.created)}</span></td
	>
	<td class="number">
		{#if mayChange}
			{#if load.state === 'waiting' || load.state === 'reading'}
				<form method="POST" action="?/stop" use:enhance>
					<input type="hidden" name="load" value={load.id} /><button
						class="btn btn-sm preset-outlined-brand"
						aria-label="Stop reading {load.file_name}">Stop</button
					>
				</form>
			{:else if load.state === 'stopped' || load.state === 'failed'}
				<form method="POST" action="?/again" use:enhance>
					<input type="hidden" name="load" value={load.id} /><button
						class="btn btn-sm preset-outlined-brand"
						aria-label="Read {load.file_name} again">Again</button
					>
				</form>
				<form method="POST" action="?/away" use:enhance class="mt-1">
					<input type="hidden" name="load" value={load.id} /><button
						class="btn btn-sm preset-outlined-brand"
						aria-label="Throw {load.file_name} away">Discard</button
					>
				</form>
			{/if}
			{#if byRecipe(load) && ['review', 'undone', 'failed'].includes(load.state)}<a
					class="word mr-2 text-[13px]"
					href="/courses/{courseId}/loads/{load.id}/recipe"
					aria-label="Recipe for {load.file_name}">Recipe</a
				>{/if}
			{#if load.state === 'review'}<a
					class="btn btn-sm preset-filled-brand"
					href="/courses/{courseId}/loads/{load.id}"
					aria-label="Review {load.file_name}">Review</a
				>{/if}
		{/if}
	</td>
</tr>

<style>
	td {
		vertical-align: middle !important;
		padding-block: 7px !important;
	}
</style>
