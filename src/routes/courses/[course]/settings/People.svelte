<script lang="ts">
	import type { Slips } from '$lib/server/forms';
	import type { Member } from '$lib/server/people/members';
	import { invitation } from '$lib/forms/person';
	import Field from '$lib/ui/Field.svelte';
	import Form from '$lib/ui/Form.svelte';
	import WaitingLinks from '$lib/ui/WaitingLinks.svelte';
	import { ago } from '$lib/ui/words';
	import { enhance } from '$lib/ui/refresh';

	/** Who belongs to a course and what they may do, and the links that nobody has taken up yet. */
	let {
		members,
		invitations,
		person,
		mayManage,
		slips
	}: {
		members: Member[];
		invitations: { id: number; email: string; role: 'look' | 'work' | 'manage' | null; by: string; expires: Date }[];
		person: { id: number };
		mayManage: boolean;
		slips: Slips | null;
	} = $props();

	const may = [
		['look', 'look'],
		['work', 'work: take in, change, dispatch'],
		['manage', 'manage: work, people, settings']
	] as const;
	const words = new Map<string | null, string>(may.map(([role, name]) => [role, name]));
</script>

{#if mayManage}
	<Form schema={invitation} action="?/invite" name="invite" answer={slips} class="mb-4 flex items-start gap-3">
		<Field label="Let somebody in, by e-mail address" name="email" type="email" required width="300px" />
		<Field label="They may" name="role" choices={may} value="work" width="240px" />
		<button class="btn btn-sm preset-filled-brand mt-[20px]">Let them in</button>
	</Form>
{/if}
<table class="table">
	<thead
		><tr><th>Name</th><th>E-mail</th><th>May</th><th>Last seen</th><th><span class="visually-hidden">Do</span></th></tr
		></thead
	>
	<tbody>
		{#each members as member (member.id)}
			<tr>
				<td>{member.name}</td>
				<td class="mute">{member.email}</td>
				<td
					>{#if mayManage}<form method="POST" action="?/role" use:enhance>
							<input type="hidden" name="person" value={member.id} />
							<select
								name="role"
								class="select"
								aria-label="What {member.name} may do"
								onchange={(event) => event.currentTarget.form!.requestSubmit()}
							>
								{#each may as [role, name] (role)}<option value={role} selected={role === member.role}>{name}</option
									>{/each}
							</select>
						</form>{:else}{words.get(member.role)}{/if}</td
				>
				<td class="mute">{member.seen ? ago(member.seen) : 'signed out'}</td>
				<td class="text-right"
					>{#if mayManage || member.id === person.id}<form method="POST" action="?/out" use:enhance>
							<input type="hidden" name="person" value={member.id} />
							<button class="btn btn-sm preset-outlined-brand" aria-label="Take {member.name} out"
								>{member.id === person.id ? 'Leave' : 'Take out'}</button
							>
						</form>{/if}</td
				>
			</tr>
		{:else}<tr><td colspan="5" class="mute">Nobody belongs to it but those who look after the installation.</td></tr
			>{/each}
	</tbody>
</table>
<WaitingLinks
	{invitations}
	says={({ id }) => `may ${words.get(invitations.find((invitation) => invitation.id === id)?.role ?? null)}`}
/>
