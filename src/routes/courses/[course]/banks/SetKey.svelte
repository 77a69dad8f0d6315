<script lang="ts">
	import { isChoice, type Question } from '$core/kinds';
	import { plainText } from '$core/markup/text';
	import { withKey } from '$core/scoring/set-key';
	import type { StoredQuestion } from '$lib/server/banks/banks';
	import type { Done } from '$lib/server/changes/deed';
	import { send, tellDone } from '$lib/ui/doing';
	import { isNoShortcut } from '$lib/ui/keys';
	import { tell } from '$lib/ui/toasts';
	import type { BankView } from './bank.svelte';

	/** Keys are set by a click on an option, or by its letter; Enter goes on to the next question. */
	let {
		stored,
		view,
		place,
		next,
		leave
	}: { stored: StoredQuestion; view: BankView; place: string; next: () => void; leave: () => void } = $props();

	let question = $derived<Question>(stored.question);
	let version = $derived(stored.version);
	let busy = $state(false);
	const options = $derived(isChoice(question) ? question.options : []);

	async function set(identifier: string) {
		if (busy) return;
		busy = true;
		const before = question;
		question = withKey(question, identifier);
		const sent = await send<Done>(
			`/courses/${view.courseId}/banks/questions/${stored.id}`,
			{ version, question: $state.snapshot(question) },
			'PUT'
		);
		busy = false;
		if (sent.ok) {
			version += 1;
			tellDone(view.courseId, sent.value, () => view.again());
		} else {
			question = before;
			tell(
				'clash' in ((sent.value as object | null) ?? {})
					? 'Somebody has changed this question meanwhile. It is shown anew.'
					: sent.message
			);
			await view.again();
		}
	}
	function keys(event: KeyboardEvent) {
		if (isNoShortcut(event)) return;
		const at = event.key.length === 1 ? event.key.toUpperCase().charCodeAt(0) - 65 : -1;
		if (event.key === 'Enter') next();
		else if (event.key === 'Escape') leave();
		else if (at >= 0 && options[at]) void set(options[at].identifier);
		else return;
		event.preventDefault();
		event.stopImmediatePropagation();
	}
</script>

<svelte:window onkeydowncapture={keys} />
<div class="mb-3 flex items-baseline justify-between gap-3">
	<h2>Which is the key?</h2>
	<span class="mute text-[13px]">{place}</span>
</div>
<p class="mb-3 text-[16px]">{plainText(question.stem)}</p>
{#if options.length}
	<ol class="flex flex-col gap-1">
		{#each options as option, at (option.identifier)}
			<li>
				<button
					type="button"
					class="option"
					class:key={option.credit > 0}
					aria-pressed={option.credit > 0}
					onclick={() => set(option.identifier)}
				>
					<kbd>{String.fromCharCode(65 + at)}</kbd>
					<span class="flex-1">{plainText(option.text) || '(no text)'}</span>
					{#if option.credit > 0}<b class="whole">key</b>{/if}
				</button>
			</li>
		{/each}
	</ol>
	<p class="mute mt-3 text-[13px]">
		{question.kind === 'multiple-response'
			? 'Several may be right: each click adds one or takes it back.'
			: 'One is right.'}
		A letter sets it; <kbd>Enter</kbd> goes on, <kbd>Esc</kbd> leaves.
	</p>
{:else}<p class="mute">A key of this kind is set in its editor.</p>{/if}
<div class="mt-4 flex gap-2">
	<button type="button" class="btn btn-sm preset-filled-brand" onclick={next}>On to the next</button>
	<button type="button" class="btn btn-sm preset-outlined-brand" onclick={leave}>Leave</button>
</div>

<style>
	.option {
		display: flex;
		width: 100%;
		gap: 10px;
		align-items: center;
		text-align: left;
		padding: 7px 10px;
		border: 1px solid var(--line2);
		border-radius: 6px;
		cursor: pointer;
	}
	.option:hover {
		background: color-mix(in srgb, var(--woad-soft) 45%, transparent);
	}
	.option.key {
		border-color: var(--lichen);
		background: color-mix(in srgb, var(--lichen) 12%, transparent);
	}
</style>
