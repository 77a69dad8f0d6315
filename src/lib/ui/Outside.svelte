<script lang="ts">
	import { page } from '$app/state';
	import type { Snippet } from 'svelte';
	import PersonMenu from './PersonMenu.svelte';
	import Toasts from './Toasts.svelte';

	/** The shell of pages that belong to no course. */
	let { person, title, children }: { person: { name: string; keeper: boolean }; title: string; children: Snippet } =
		$props();
	const links = $derived([
		['/', 'Courses'],
		...(person.keeper ? [['/people', 'People']] : []),
		['/me', 'Your account']
	] as [string, string][]);
</script>

<svelte:head><title>{title} · Yarn Barrow</title></svelte:head>
<header>
	<b class="heading">Yarn Barrow</b>
	<nav aria-label="Pages">
		{#each links as [address, name] (address)}<a
				class="plain"
				href={address}
				aria-current={page.url.pathname === address ? 'page' : undefined}>{name}</a
			>{/each}
	</nav>
	<PersonMenu {person} />
</header>
<main class="mx-auto w-full max-w-[1040px] px-6 pb-16">{@render children()}</main>
<Toasts />

<style>
	header {
		display: flex;
		align-items: center;
		gap: 28px;
		height: 60px;
		max-width: 1040px;
		margin: 0 auto 18px;
		padding: 0 24px;
		border-bottom: 1px solid var(--line2);
	}
	header b {
		font-size: 17px;
	}
	nav {
		display: flex;
		gap: 18px;
		margin-right: auto;
	}
	nav a {
		color: var(--ink2);
	}
	nav a[aria-current] {
		color: var(--ink);
		text-decoration: underline 2px var(--woad);
		text-underline-offset: 5px;
	}
</style>
