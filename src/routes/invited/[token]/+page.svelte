<script lang="ts">
	import type { Slips } from '$lib/server/forms';
	import { beginning } from '$lib/forms/course';
	import { choosing, joining } from '$lib/forms/person';
	import Field from '$lib/ui/Field.svelte';
	import Form from '$lib/ui/Form.svelte';
	import { enhance } from '$lib/ui/refresh';

	let { data, form } = $props();
	const slips = $derived(form as Slips | null);
	const { invitation } = $derived(data);
	const may = { look: 'look at it', work: 'work on its questions and quizzes', manage: 'manage it' };
	const said = $derived(
		[
			`${invitation.by} invites you${invitation.course ? ` to ${invitation.course}` : ''}.`,
			invitation.course ? `You may ${may[invitation.role ?? 'look']}.` : '',
			invitation.keeper ? 'You look after the installation.' : ''
		]
			.filter(Boolean)
			.join(' ')
	);
	const title = $derived(
		invitation.person ? 'A new password' : invitation.first ? 'The first person, the first course' : 'You are invited'
	);
</script>

<svelte:head><title>{title} · Yarn Barrow</title></svelte:head>
<main class="mx-auto flex w-full max-w-[440px] flex-col gap-4 px-6 py-14">
	<p class="heading mute">Yarn Barrow</p>
	<h1 class="text-[26px]">{title}</h1>
	{#if slips?.message}<p class="notice broken" role="alert">{slips.message}</p>{/if}
	{#if invitation.person}
		<p>
			{invitation.person.name}, choose the password that you want to have from now on. Wherever you are signed in, you
			are signed out.
		</p>
		<Form schema={choosing} action="?/password" name="password" answer={slips} class="flex flex-col gap-4">
			<Field
				label="A new password"
				name="password"
				type="password"
				autocomplete="new-password"
				hint="10 letters at the least"
				required
			/>
			<button class="btn preset-filled-brand self-start">Keep it and go in</button>
		</Form>
	{:else}
		{#if invitation.first}
			<p class="mute">This installation is empty. You look after it from now on; others come by links that you make.</p>
		{:else}
			<p>{said}</p>
		{/if}
		{#if data.person}
			<form method="POST" action="?/accept" use:enhance>
				<button class="btn preset-filled-brand">Join as {data.person.name}</button>
			</form>
			<p class="mute text-[13px]">
				You are signed in as {data.person.email}. If that is not whom the link is for, sign out first.
			</p>
		{:else}
			<Form
				schema={invitation.first ? beginning : joining}
				action="?/join"
				name="join"
				answer={slips}
				class="flex flex-col gap-4"
			>
				<Field label="Your name" name="name" autocomplete="name" required />
				<Field
					label="E-mail address"
					name="email"
					type="email"
					autocomplete="username"
					value={invitation.email}
					required
				/>
				<Field
					label="Choose a password"
					name="password"
					type="password"
					autocomplete="new-password"
					hint="10 letters at the least"
					required
				/>
				{#if invitation.first}
					<h2 class="mt-3">The first course</h2>
					<Field label="Name" name="course" required />
					<div class="flex gap-3">
						<Field label="Code" name="code" required />
						<Field label="Intake" name="intake" />
					</div>
				{/if}
				<button class="btn preset-filled-brand self-start">{invitation.first ? 'Begin' : 'Join'}</button>
			</Form>
			{#if !invitation.first}<p class="mute text-[13px]">
					You have been here before? <a class="word" href="/signin">Sign in</a>, and open the link again.
				</p>{/if}
		{/if}
	{/if}
</main>
