<script lang="ts">
	import { ago, dateTime } from '$lib/ui/words';
	import type { PageData } from './$types';
	import { asked, sentBy } from './what';

	type Dispatch = PageData['dispatches'][number];
	/** The dispatches that were made before, the newest first. */
	let {
		dispatches,
		formats,
		stateOf
	}: { dispatches: Dispatch[]; formats: PageData['formats']; stateOf: (dispatch: Dispatch) => string } = $props();

	const mostShown = 12;
	const titleOf = ({ format }: Dispatch) => formats.find(({ name }) => name === format)?.title ?? format;
</script>

{#if dispatches.length}
	<h3 class="mt-6">Earlier</h3>
	<table class="table">
		<tbody
			>{#each dispatches.slice(0, mostShown) as dispatch (dispatch.id)}<tr
					><td
						><a class="word" href="?{asked(sentBy(dispatch))}&as={dispatch.format}&show={dispatch.id}"
							>{dispatch.title}</a
						>
						<span class="mute">{titleOf(dispatch)}, {stateOf(dispatch)}</span></td
					><td class="number mute" title={ago(dispatch.created)}>{dateTime(dispatch.created)}</td></tr
				>{/each}</tbody
		>
	</table>
{/if}
