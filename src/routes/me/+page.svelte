<script lang="ts">
	import type { Slips } from '$lib/server/forms';
	import { ownName, passwordChange } from '$lib/forms/person';
	import Field from '$lib/ui/Field.svelte';
	import Form from '$lib/ui/Form.svelte';
	import Outside from '$lib/ui/Outside.svelte';
	import { ago, dateTime } from '$lib/ui/words';
	import { enhance } from '$lib/ui/refresh';

	let { data, form } = $props();
	const slips = $derived(form && 'slips' in form ? (form as Slips) : null);
	const done = $derived(form && 'done' in form ? form.done : '');
</script>

<Outside person={data.person} title="Your account">
	<h1 class="mb-1">Your account</h1>
	<p class="mute mb-4">{data.person.email}</p>
	{#if done}<p class="notice whole mb-4" role="status">{done}</p>{/if}
	<div class="grid grid-cols-[300px_1fr] gap-x-14 gap-y-8">
		<div class="flex flex-col gap-7">
			<Form schema={ownName} action="?/name" name="name" answer={slips} keeps>
				<h2>Name</h2>
				<Field label="What you are called" name="name" value={data.person.name} autocomplete="name" required />
				<button class="btn btn-sm preset-outlined-brand self-start">Keep the name</button>
			</Form>
			<Form schema={passwordChange} action="?/password" name="password" answer={slips}>
				<h2>Password</h2>
				<Field
					label="The one that you have now"
					name="before"
					type="password"
					autocomplete="current-password"
					required
				/>
				<Field
					label="A new one"
					name="password"
					type="password"
					autocomplete="new-password"
					hint="10 letters at the least"
					required
				/>
				<Field label="The new one once more" name="again" type="password" autocomplete="new-password" required />
				<button class="btn btn-sm preset-outlined-brand self-start">Change the password</button>
			</Form>
		</div>
		<section>
			<h2 class="mb-2">Where you are signed in</h2>
			<table class="table">
				<thead
					><tr><th>Device</th><th>Since</th><th>Last seen</th><th><span class="visually-hidden">Do</span></th></tr
					></thead
				>
				<tbody>
					{#each data.devices as device (device.id)}
						<tr>
							<td
								>{device.device || 'A browser'}{#if device.here}
									· <b class="whole">this one</b>{/if}</td
							>
							<td class="mute">{dateTime(device.begun)}</td>
							<td class="mute">{ago(device.seen)}</td>
							<td class="text-right"
								>{#if !device.here}<form method="POST" action="?/device" use:enhance>
										<input type="hidden" name="device" value={device.id} />
										<button class="btn btn-sm preset-outlined-brand" aria-label="Sign out {device.device}"
											>Sign out there</button
										>
									</form>{/if}</td
							>
						</tr>
					{/each}
				</tbody>
			</table>
			{#if data.devices.length > 2}<form method="POST" action="?/device" use:enhance class="mt-3">
					<button class="btn btn-sm preset-outlined-brand">Sign out everywhere but here</button>
				</form>{/if}
		</section>
	</div>
</Outside>
