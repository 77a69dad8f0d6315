<script lang="ts">
	import { packed, type Uploads } from '$lib/ui/uploads.svelte';

	/** The tray that takes files: they are chosen here, or dropped anywhere on the page. */
	let { course, uploads }: { course: { id: number; name: string; code: string }; uploads: Uploads } = $props();

	let folderChooser: HTMLInputElement | undefined = $state();
	let chooser: HTMLInputElement | undefined = $state();
	let packing = $state('');
	/** A folder that was chosen is one package, with the name of the folder. */
	async function folder(files: FileList | null) {
		const all = [...(files ?? [])];
		if (!all.length) return;
		const name = all[0]!.webkitRelativePath.split('/')[0]!;
		packing = `Packing ${name} …`;
		const inside = new Map(all.map((file) => [file.webkitRelativePath.slice(name.length + 1), file]));
		uploads.add(course, [await packed(name, inside)]);
		packing = '';
	}
</script>

<section class="tray">
	<svg
		viewBox="0 0 60 42"
		aria-hidden="true"
		fill="none"
		stroke="var(--woad)"
		stroke-width="2.2"
		stroke-linecap="round"
		stroke-linejoin="round"
		><path d="M3 14H43L37 30H11ZM43 14L57 8M33 37H41" /><circle cx="17" cy="36" r="4.5" /><circle
			cx="19"
			cy="10"
			r="6"
		/><circle cx="31" cy="8" r="7" /></svg
	>
	<div class="flex-1">
		<h2>Drop files here</h2>
		<p class="mute">
			QTI 1.2 to 3.0, Common Cartridge, Word, text, tables, JSON and XML of any shape. Nothing goes into the course
			before you have seen it. Templates:
			{#each [['text', 'text'], ['csv', 'CSV'], ['xlsx', 'XLSX']] as [name, said], at (name)}{at ? ', ' : ''}<a
					class="word"
					href="/courses/{course.id}/loads/template?as={name}"
					download>{said}</a
				>{/each}.
		</p>
		{#if packing}<p role="status">{packing}</p>{/if}
	</div>
	<input
		bind:this={chooser}
		class="visually-hidden"
		tabindex="-1"
		aria-label="Files to load"
		type="file"
		multiple
		accept=".zip,.xml,.imscc,.docx,.txt,.md,.csv,.tsv,.xlsx,.json,.jsonl"
		onchange={(event) => {
			uploads.add(course, event.currentTarget.files ?? []);
			event.currentTarget.value = '';
		}}
	/>
	<input
		bind:this={folderChooser}
		class="visually-hidden"
		tabindex="-1"
		aria-label="A folder to load"
		type="file"
		webkitdirectory
		onchange={async (event) => {
			await folder(event.currentTarget.files);
			event.currentTarget.value = '';
		}}
	/>
	<a class="btn preset-outlined-brand" href="/courses/{course.id}/loads/paste">Type or paste text</a>
	<button class="btn preset-outlined-brand" type="button" onclick={() => folderChooser?.click()}>A folder</button>
	<button class="btn preset-filled-brand" type="button" onclick={() => chooser?.click()}>Choose files</button>
</section>

<style>
	.tray {
		display: flex;
		align-items: center;
		gap: 24px;
		padding: 20px 24px;
		background: var(--paper);
		border: 1.5px dashed var(--line2);
		border-radius: 8px;
	}
	.tray > svg {
		width: 60px;
	}
</style>
