<script lang="ts">
	import type { Quiz } from '$lib/server/quizzes/quiz';
	import type { KeptVersion } from '$lib/server/quizzes/versions';
	import { send } from '$lib/ui/doing';
	import { tell } from '$lib/ui/toasts';
	import { count, dateTime } from '$lib/ui/words';
	import type { Sheet } from './sheet.svelte';

	/** The versions of a quiz that are kept; one of them is brought back at a click, and that is undone as any change. */
	let { sheet, mayChange }: { sheet: Sheet; mayChange: boolean } = $props();

	let versions = $state.raw<KeptVersion[] | null>(null);
	$effect(() => {
		void sheet.quiz.version;
		void fetch(`${sheet.address}/versions`, { headers: { Accept: 'application/json' } })
			.then((answer) => (answer.ok ? (answer.json() as Promise<KeptVersion[]>) : []))
			.catch(() => [])
			.then((found) => (versions = found));
	});
	async function bringBack(version: KeptVersion) {
		const answer = await send<Quiz>(`${sheet.address}/versions`, { id: version.id });
		if (!answer.ok) return tell(answer.message);
		sheet.take({ ...answer.value, drawingRule: sheet.quiz.drawingRule }, mayChange);
		tell(`The quiz is as it was before ${dateTime(version.changed)}.`, { name: 'Undo', act: () => sheet.undo() });
	}
</script>

<h2>Versions</h2>
{#if versions?.length}
	<table class="table">
		<thead
			><tr
				><th>As it was before</th><th>Changed by</th><th class="number">Parts</th><th
					><span class="visually-hidden">Do</span></th
				></tr
			></thead
		>
		<tbody>
			{#each versions as version (version.id)}<tr
					><td>{dateTime(version.changed)}</td><td>{version.by ?? 'a load or the demo'}</td><td
						class="number"
						title={version.parts.join(', ')}>{version.parts.length}</td
					><td class="number"
						>{#if mayChange}<button
								type="button"
								class="word"
								aria-label="Bring back the version before {dateTime(version.changed)}, of {count(
									version.parts.length,
									'part'
								)}"
								onclick={() => bringBack(version)}>bring it back</button
							>{/if}</td
					></tr
				>{/each}
		</tbody>
	</table>
{:else}<p class="mute">
		What the quiz was before each change stands here; changes of one person within ten minutes count as one.
	</p>{/if}

<style>
	button {
		cursor: pointer;
	}
</style>
