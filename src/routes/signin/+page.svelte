<script lang="ts">
	import { signing } from '$lib/forms/person';
	import Field from '$lib/ui/Field.svelte';
	import Form from '$lib/ui/Form.svelte';

	let { form } = $props();
</script>

<svelte:head><title>Sign in · Yarn Barrow</title></svelte:head>
<main class="mx-auto flex min-h-full w-full max-w-[360px] flex-col justify-center px-6 pb-24">
	<svg
		viewBox="0 -6 120 72"
		class="mb-4 w-28"
		aria-hidden="true"
		fill="none"
		stroke="var(--woad)"
		stroke-width="3"
		stroke-linecap="round"
		stroke-linejoin="round"
	>
		<path d="M14 20H88L76 44H26ZM88 20L112 10M38 50l-4 0" /><circle cx="36" cy="52" r="7" /><path
			d="M70 52H86"
		/><circle cx="42" cy="14" r="9" /><circle cx="62" cy="11" r="11" /><path
			d="M36 12C42 6 48 10 50 17M54 6C62 2 70 6 72 14M53 14C60 8 68 12 70 18"
			stroke-width="1.6"
		/>
	</svg>
	<h1 class="text-[28px]">Yarn Barrow</h1>
	<p class="mute mb-6">Question banks, in and out, with nothing lost on the way.</p>
	<Form schema={signing} name="signin" answer={form} keeps class="flex flex-col gap-4">
		<Field label="E-mail" name="email" type="email" autocomplete="username" required />
		<Field label="Password" name="password" type="password" autocomplete="current-password" required />
		{#if form?.message}<p class="notice broken" role="alert">{form.message}</p>{/if}
		<button class="btn preset-filled-brand">Sign in</button>
	</Form>
</main>
