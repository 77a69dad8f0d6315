<script lang="ts">
	import { dateTime } from './words';
	import { enhance } from './refresh';

	/** The links of invitations that nobody has taken up yet; each can be ended. */
	let {
		invitations,
		says
	}: {
		invitations: { id: number; email: string; by: string; expires: Date }[];
		/** What somebody may do who takes one up, where it is worth a word. */
		says?: (invitation: { id: number }) => string;
	} = $props();
</script>

{#if invitations.length}
	<h2 class="mt-7 mb-2">Links that wait</h2>
	<table class="table">
		<tbody>
			{#each invitations as invitation (invitation.id)}
				<tr>
					<td>{invitation.email}</td>
					{#if says}<td class="mute">{says(invitation)}</td>{/if}
					<td class="mute">by {invitation.by}, good until {dateTime(invitation.expires)}</td>
					<td class="text-right"
						><form method="POST" action="?/withdraw" use:enhance>
							<input type="hidden" name="invitation" value={invitation.id} />
							<button class="btn btn-sm preset-outlined-brand" aria-label="End the link of {invitation.email}"
								>End it</button
							>
						</form></td
					>
				</tr>
			{/each}
		</tbody>
	</table>
{/if}
