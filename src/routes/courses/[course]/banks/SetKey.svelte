<script lang="ts">
	import type { Question } from '$core/kinds';
	import { inShape } from '$core/kinds/areas';
	import { plainText } from '$core/markup/text';
	import { keyAsks, withKey } from '$core/scoring/set-key';
	import type { StoredQuestion } from '$lib/server/banks/banks';
	import type { Done } from '$lib/server/changes/deed';
	import { send, tellDone } from '$lib/ui/doing';
	import { isNoShortcut } from '$lib/ui/keys';
	import { tell } from '$lib/ui/toasts';
	import { untrack } from 'svelte';
	import Frame from '$lib/ui/kinds/show/Frame.svelte';
	import type { BankView } from './bank.svelte';

	/** Keys are set by a click on an option, a partner or a place, or by its letter; Enter goes on to the next question. */
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
	const asks = $derived(keyAsks(question));
	/** What a letter is for: the first that has no key yet, until one goes on. */
	let current = $state(0);
	$effect(() => {
		void stored.id;
		const first = untrack(() => asks.findIndex(({ choices }) => !choices.some(({ isKey }) => isKey)));
		current = Math.max(0, first);
	});
	const places = $derived(
		question.kind === 'hotspot' ? question.shapes : question.kind === 'label-image' ? question.targets : []
	);
	const isRight = (identifier: string) =>
		asks[current]?.choices.some((choice) => choice.identifier === identifier && choice.isKey) ?? false;
	const pictureOf = (name: string) => {
		const file = question.attachments.find((attachment) => attachment.name === name);
		return file?.hash ? `/courses/${view.courseId}/files/${file.hash}?as=${encodeURIComponent(file.mediaType)}` : null;
	};
	const letterOf = (at: number) => String.fromCharCode(65 + at);

	async function set(identifier: string, ask: number) {
		if (busy) return;
		busy = true;
		const before = question;
		question = withKey(question, identifier, ask);
		// one thing after the other gets its partner
		current = !asks[ask]?.isSeveral && asks[ask + 1] ? ask + 1 : ask;
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
		else if (event.key === 'ArrowDown') current = Math.min(asks.length - 1, current + 1);
		else if (event.key === 'ArrowUp') current = Math.max(0, current - 1);
		else if (at >= 0 && asks[current]?.choices[at]) void set(asks[current]!.choices[at]!.identifier, current);
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
{#if places.length && 'picture' in question}<div class="mb-3">
		<Frame
			picture={question.picture}
			address={pictureOf(question.picture.name)}
			{places}
			right={(shape) => isRight(shape.identifier)}
			onpoint={(point) => {
				const place = places.find((shape) => inShape(shape, point));
				if (place) void set(place.identifier, current);
			}}
		/>
	</div>
{/if}
{#if asks.length}
	{#each asks as ask, n (n)}
		{#if ask.name}<h3 class="mt-3 mb-1 text-[14px]!" class:current={n === current}>
				{ask.name}
				{#if n === current && asks.length > 1}<span class="mute font-normal">· its letter now</span>{/if}
			</h3>{/if}
		<ol class="flex gap-1 {ask.name ? 'flex-wrap' : 'flex-col'}">
			{#each ask.choices as choice, at (choice.identifier)}
				<li class:w-full={!ask.name}>
					<button
						type="button"
						class="option"
						class:key={choice.isKey}
						aria-pressed={choice.isKey}
						aria-label={ask.name ? `${ask.name}: ${choice.text || 'no text'}` : undefined}
						onclick={() => set(choice.identifier, n)}
					>
						<kbd>{letterOf(at)}</kbd>
						<span class="flex-1">{choice.text || '(no text)'}</span>
						{#if choice.isKey}<b class="whole">key</b>{/if}
					</button>
				</li>
			{/each}
		</ol>
	{/each}
	<p class="mute mt-3 text-[13px]">
		{asks.length > 1
			? 'Each gets one, in its turn; the arrows go up and down.'
			: asks[0]!.isSeveral
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
	.current {
		color: var(--woad);
	}
	.option:hover {
		background: color-mix(in srgb, var(--woad-soft) 45%, transparent);
	}
	.option.key {
		border-color: var(--lichen);
		background: color-mix(in srgb, var(--lichen) 12%, transparent);
	}
</style>
