<script lang="ts">
	import type { Slips } from '$lib/server/forms';
	import MadeLink from '$lib/ui/MadeLink.svelte';
	import Tabs from '$lib/ui/Tabs.svelte';
	import { count, figure } from '$lib/ui/words';
	import Copy from './Copy.svelte';
	import Going from './Going.svelte';
	import People from './People.svelte';
	import Rules from './Rules.svelte';
	import Names from './Names.svelte';

	let { data, form } = $props();
	const slips = $derived(form && 'slips' in form ? (form as Slips) : null);
	const made = $derived(form && 'made' in form ? form.made : null);
	const done = $derived(form && 'done' in form ? form.done : '');
	const refused = $derived(form && 'refused' in form ? form.refused : '');
	let tab = $state<'people' | 'names' | 'rules' | 'copy' | 'going'>('people');
	const tabs = $derived([
		{ value: 'people', name: `People ${data.members.length}` },
		{ value: 'names', name: 'Name and code' },
		{ value: 'rules', name: 'What it goes by' },
		{ value: 'copy', name: 'Copy' },
		{ value: 'going', name: 'Archive and bin' }
	] as const);
</script>

<svelte:head><title>Course · {data.course.name} · Yarn Barrow</title></svelte:head>
<div class="sheet">
	<div class="mb-4 flex items-baseline gap-3">
		<h1>{data.course.name}</h1>
		<span class="mute"
			>{[data.course.code, data.course.intake].filter(Boolean).join(' · ')} · {count(
				data.waiting.banks,
				'question'
			).replace(/^\d+/, (number) => figure(Number(number)))}</span
		>
		{#if data.course.state === 'archived'}<b class="doubtful">in the archive</b>{/if}
	</div>
	{#if done}<p class="notice whole mb-4" role="status">{done}</p>{/if}
	{#if refused}<p class="notice broken mb-4" role="alert">{refused}</p>{/if}
	{#if made}<MadeLink {made} />{/if}
	{#if !data.mayManage}<p class="mute mb-4">You may look at this. Those who manage the course change it.</p>{/if}
	<Tabs tabs={[...tabs]} bind:value={tab} label="The course">
		{#snippet panel(chosen)}
			<div class="max-w-[860px] pt-2">
				{#if chosen === 'people'}<People
						members={data.members}
						invitations={data.invitations}
						person={data.person}
						mayManage={data.mayManage}
						{slips}
					/>
				{:else if chosen === 'names'}<Names course={data.course} mayManage={data.mayManage} {slips} />
				{:else if chosen === 'rules'}<Rules settings={data.settings} mayManage={data.mayManage} {slips} />
				{:else if chosen === 'copy'}<Copy
						course={data.course}
						mayManage={data.mayManage}
						questions={data.waiting.banks}
					/>
				{:else}<Going course={data.course} mayManage={data.mayManage} questions={data.waiting.banks} />{/if}
			</div>
		{/snippet}
	</Tabs>
</div>
