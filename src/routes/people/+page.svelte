<script lang="ts">
	import type { Slips } from '$lib/server/forms';
	import { installationInvitation } from '$lib/forms/person';
	import Field from '$lib/ui/Field.svelte';
	import Form from '$lib/ui/Form.svelte';
	import WaitingLinks from '$lib/ui/WaitingLinks.svelte';
	import MadeLink from '$lib/ui/MadeLink.svelte';
	import Outside from '$lib/ui/Outside.svelte';
	import { ago, dateTime } from '$lib/ui/words';
	import { enhance } from '$lib/ui/refresh';

	let { data, form } = $props();
	const slips = $derived(form && 'slips' in form ? (form as Slips) : null);
	const made = $derived(form && 'made' in form ? form.made : null);
	const done = $derived(form && 'done' in form ? form.done : '');
	const refused = $derived(form && 'refused' in form ? form.refused : '');
	let words = $state('');
	let leaving = $state<number | null>(null);
	const found = $derived(
		data.people.filter(({ name, email }) => `${name} ${email}`.toLowerCase().includes(words.trim().toLowerCase()))
	);
</script>

<Outside person={data.person} title="People">
	<div class="mb-4 flex items-center gap-3">
		<h1 class="mr-auto">People</h1>
		<input
			class="input w-60"
			type="search"
			placeholder="find by name or address"
			aria-label="Find a person"
			bind:value={words}
		/>
	</div>
	{#if done}<p class="notice whole mb-4" role="status">{done}</p>{/if}
	{#if refused}<p class="notice broken mb-4" role="alert">{refused}</p>{/if}
	{#if made}<MadeLink {made} />{/if}
	<Form
		schema={installationInvitation}
		action="?/invite"
		name="invite"
		answer={slips}
		class="mb-5 flex items-start gap-3"
	>
		<Field
			label="Invite by e-mail address"
			name="email"
			type="email"
			required
			width="300px"
			hint="courses are given on their own pages"
		/>
		<label class="mt-[22px] flex items-center gap-2"
			><input type="checkbox" class="checkbox" name="keeper" /> looks after the installation</label
		>
		<button class="btn btn-sm preset-filled-brand mt-[20px]">Make a link</button>
	</Form>
	<table class="table">
		<thead
			><tr
				><th>Name</th><th>E-mail</th><th class="number">Courses</th><th>Last seen</th><th
					>Looks after the installation</th
				><th><span class="visually-hidden">Do</span></th></tr
			></thead
		>
		<tbody>
			{#each found as account (account.id)}
				<tr class:faint={account.gone}>
					<td>{account.name}</td>
					<td class="mute">{account.email}</td>
					<td class="number">{account.courses || ''}</td>
					<td class="mute"
						>{account.gone ? `left ${dateTime(account.gone)}` : account.seen ? ago(account.seen) : 'signed out'}</td
					>
					<td
						>{#if !account.gone}<form method="POST" action="?/keeper" use:enhance class="flex items-center gap-2">
								<input type="hidden" name="person" value={account.id} />
								<input type="hidden" name="keeper" value={account.keeper ? '' : '1'} />
								{account.keeper ? 'yes' : 'no'}
								<button
									class="btn btn-sm preset-outlined-brand"
									aria-label="{account.name}: {account.keeper ? 'no longer' : 'let them'}"
									>{account.keeper ? 'No longer' : 'Let them'}</button
								>
							</form>{/if}</td
					>
					<td>
						<form method="POST" use:enhance class="flex justify-end gap-2">
							<input type="hidden" name="person" value={account.id} />
							<button
								class="btn btn-sm preset-outlined-brand"
								formaction="?/password"
								aria-label="A link for {account.name}">{account.gone ? 'Let them back' : 'New password'}</button
							>
							{#if !account.gone}
								{#if leaving === account.id}<button class="btn btn-sm preset-filled-brand" formaction="?/leave"
										>They leave {account.courses} courses</button
									>{:else}<button
										type="button"
										class="btn btn-sm preset-outlined-brand"
										aria-label="{account.name} leaves"
										onclick={() => (leaving = account.id)}>Leaves</button
									>{/if}
							{/if}
						</form>
					</td>
				</tr>
			{/each}
		</tbody>
	</table>
	<WaitingLinks invitations={data.invitations} />
</Outside>
