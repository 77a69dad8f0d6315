<script lang="ts">
	import { Menu } from '@skeletonlabs/skeleton-svelte';
	import { goto } from '$app/navigation';
	import LogOut from '@lucide/svelte/icons/log-out';
	import User from '@lucide/svelte/icons/user';

	/** The person who is signed in, and the way out. */
	let { person }: { person: { name: string } } = $props();

	const initials = $derived(
		person.name
			.split(/\s+/)
			.map((word) => word[0])
			.join('')
			.slice(0, 2)
	);
	let leaving: HTMLFormElement;
</script>

<form method="POST" action="/signout" bind:this={leaving}></form>
<Menu
	onSelect={({ value }) => {
		if (value === 'out') leaving.submit();
		else if (value === 'me') void goto('/me');
	}}
	positioning={{ placement: 'bottom-end' }}
>
	<Menu.Trigger class="me" title={person.name} aria-label={person.name}>{initials}</Menu.Trigger>
	<Menu.Positioner class="over">
		<Menu.Content class="panel min-w-[180px]">
			<p class="mute p-2" role="presentation">{person.name}</p>
			<Menu.Item value="me" class="choice-line"><User size={14} class="inline" /> Your account</Menu.Item>
			<Menu.Item value="out" class="choice-line"><LogOut size={14} class="inline" /> Sign out</Menu.Item>
		</Menu.Content>
	</Menu.Positioner>
</Menu>

<style>
	:global(.me) {
		width: 28px;
		height: 28px;
		border: 1.5px solid var(--line2);
		border-radius: 50%;
		font-weight: 700;
		font-size: 12px;
	}
</style>
