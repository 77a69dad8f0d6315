<script lang="ts">
	import { enhance } from '$app/forms';
	import { count } from '$lib/ui/words';
	let { data } = $props();
</script>

<svelte:head><title>Courses · Yarn Barrow</title></svelte:head>
<main class="mx-auto w-full max-w-[860px] px-6 py-12">
	<div class="mb-6 flex items-baseline justify-between">
		<h1>Courses of Gullhaven Harbour School</h1>
		<form method="POST" action="/signout" use:enhance>
			<button class="btn btn-sm preset-outlined-brand">Sign out {data.person.name}</button>
		</form>
	</div>
	<table class="table">
		<thead
			><tr
				><th>Course</th><th>Code</th><th>Intake</th><th class="number">Banks</th><th class="number">Questions</th><th
					>Waiting</th
				><th>You may</th></tr
			></thead
		>
		<tbody>
			{#each data.courses as course (course.id)}
				<tr>
					<td><a class="word" href="/courses/{course.id}/loads"><b>{course.name}</b></a></td>
					<td class="mute">{course.code}</td>
					<td class="mute">{course.intake}</td>
					<td class="number">{course.banks}</td>
					<td class="number">{course.questions.toLocaleString('en')}</td>
					<td>{course.waiting ? `${count(course.waiting, 'load')} to review` : ''}</td>
					<td class="mute">{course.role === 'change' ? 'change it' : 'look at it'}</td>
				</tr>
			{:else}<tr
					><td colspan="7" class="mute">You belong to no course yet. Ask whoever looks after the school's courses.</td
					></tr
				>{/each}
		</tbody>
	</table>
</main>
