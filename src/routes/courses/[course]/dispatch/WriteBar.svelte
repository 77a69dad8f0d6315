<script lang="ts">
	import { count } from '$lib/ui/words';
	import type { PageData } from './$types';
	import type { Sent } from './what';
	import { enhance } from '$lib/ui/refresh';

	/** The bar at the foot of a dispatch: what writing it will do, and the button. */
	let {
		data,
		sent,
		inAll,
		of,
		going,
		message
	}: {
		data: PageData;
		sent: Sent | null;
		/** How many questions there are, and how many of them an outcome has. */
		inAll: number;
		of: (outcome: 'kept' | 'changed' | 'lost') => number;
		/** It is worked out what would be lost. */
		going: boolean;
		message: string;
	} = $props();
</script>

<form class="bar" method="POST" action="?/write" use:enhance>
	{#if sent}<input type="hidden" name={sent.sort} value={sent.id} />{/if}
	<input type="hidden" name="format" value={data.format.name} /><input
		type="hidden"
		name="workedOut"
		value={data.workedOut}
	/>
	<div class="flex-1">
		{#if message}<b class="broken" role="alert">{message}</b>
		{:else if going}<span class="mute">Working out what would be lost …</span>
		{:else if inAll}<b
				>Write {(inAll - of('lost')).toLocaleString('en')} of {count(inAll, 'question')} as {data.format.title}.</b
			>
			<span class="mute"
				>{of('kept')} as they are{of('changed') ? `, ${of('changed')} changed` : ''}{of('lost')
					? `, ${of('lost')} stay behind`
					: ''}{data.quizLoss
					? `; the quiz ${data.quizLoss.carried ? (data.quizLoss.what.length ? 'is changed' : 'goes with it') : 'stays behind'}`
					: ''}.</span
			>
		{:else}<span class="mute">Nothing is chosen that could be written.</span>{/if}
	</div>
	{#if data.mayChange}<button class="btn preset-filled-brand" disabled={going || inAll - of('lost') < 1}
			>Write and prove</button
		>{/if}
</form>
