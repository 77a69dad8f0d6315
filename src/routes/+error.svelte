<script lang="ts">
	import { page } from '$app/state';
</script>

<svelte:head><title>{page.status} · Yarn Barrow</title></svelte:head>
<main class="mx-auto max-w-xl p-16">
	<h1>{page.status === 404 ? 'Nothing here' : page.status === 403 ? 'Not for you' : 'That did not work'}</h1>
	<p class="mt-3">{page.error?.message}</p>
	{#if page.error?.id}<p class="mute mt-2">
			Whoever runs this finds more in the log of the server under <code>{page.error.id}</code>.
		</p>{/if}
	<p class="mt-6"><a class="word" href="/">All courses</a></p>
</main>
