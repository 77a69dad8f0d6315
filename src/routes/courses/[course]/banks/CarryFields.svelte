<script lang="ts">
	import { untrack } from 'svelte';
	import type { CarryCounts } from '$lib/server/banks/carry';
	import { send } from '$lib/ui/doing';
	import PlaceChoice from '$lib/ui/PlaceChoice.svelte';
	import Segments from '$lib/ui/Segments.svelte';
	import { count, figure } from '$lib/ui/words';
	import type { BankView } from './bank.svelte';
	import { carryAsked, type TreeSubject } from './tree-sheets';

	/** Where categories are carried to, moved or copied, and what that comes to in numbers before it is done. */
	let {
		view,
		subject,
		open,
		how = $bindable(),
		toBank = $bindable(),
		toCategory = $bindable(),
		carry = $bindable()
	}: {
		view: BankView;
		subject: TreeSubject;
		/** Whether the sheet is open. */
		open: boolean;
		how: 'move' | 'copy';
		toBank: number | null;
		toCategory: number | null;
		carry: CarryCounts | null;
	} = $props();

	let fault = $state('');
	$effect(() => {
		const asked = open && toBank !== null ? carryAsked(subject, { bankId: toBank, categoryId: toCategory }) : null;
		// what is being carried is gone from here before the sheet is
		if (untrack(() => view.busy)) return;
		carry = null;
		fault = '';
		if (!asked) return;
		// an answer about what is no longer chosen does not count
		let isWanted = true;
		void send<CarryCounts>(`/courses/${view.courseId}/banks/tree?preview=1`, { ...asked, how: 'copy' }).then((sent) => {
			if (!isWanted) return;
			if (sent.ok) carry = sent.value;
			else fault = sent.message;
		});
		return () => (isWanted = false);
	});
	const categories = (number: number) => (number === 1 ? '1 category' : `${figure(number)} categories`);
	const made = $derived.by(() => {
		if (!carry) return '';
		if (!carry.made) return 'All its categories are there by their names.';
		const words = `${categories(carry.made)} ${carry.made === 1 ? 'is' : 'are'} made there`;
		return carry.made < carry.categories ? `${words}; the others are there by their names.` : `${words}.`;
	});
	const parts = $derived(
		carry
			? [
					[carry.fresh, 'new there'],
					[carry.changed, carry.changed === 1 ? 'a change of one there' : 'changes of some there'],
					[carry.near, 'nearly the same as one there']
				]
					.filter(([number]) => number)
					.map(([number, words]) => `${figure(Number(number))} ${words}`)
			: []
	);
</script>

<Segments
	bind:value={how}
	choices={[
		{ value: 'move', name: 'Move' },
		{ value: 'copy', name: 'Copy' }
	]}
	label="Move or copy"
/>
<PlaceChoice bind:bankId={toBank} bind:categoryId={toCategory} courseId={view.courseId} except={subject.bank.id} />
{#if fault}<p class="notice broken" role="alert">{fault}</p>
{:else if carry}
	<p role="status">
		{count(carry.inAll, 'question')} in {categories(carry.categories)}{parts.length ? `: ${parts.join(', ')}` : ''}.
		{#if carry.same}{figure(carry.same)}
			{carry.same === 1 ? 'is' : 'are'} there already and {how === 'move'
				? `${carry.same === 1 ? 'goes' : 'go'} to the bin of this course`
				: `${carry.same === 1 ? 'is' : 'are'} not copied again`}.{/if}
		{made}
	</p>
{:else}<p class="mute">
		Categories are merged by their names with those that are there, and each question is held against those of that
		bank. {toBank === null ? '' : 'Looking …'}
	</p>{/if}
