<script lang="ts">
	import { goto } from '$app/navigation';
	import { kindName } from '$core/kinds';
	import Halves from '$lib/ui/Halves.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import QuestionView from '$lib/ui/QuestionView.svelte';
	import { count, dateTime } from '$lib/ui/words';
	import type { TextAnswer } from '$lib/workers/text';
	import TextWorker from '$lib/workers/text?worker';
	import { getUploads } from '$lib/ui/uploads.svelte';
	import { onMount, untrack } from 'svelte';

	let { data } = $props();
	let text = $state('');
	let name = $state('');
	let found = $state<TextAnswer | null>(null);
	let area: HTMLTextAreaElement | undefined = $state();
	let worker: Worker | undefined = $state();
	const example =
		'1. Which knot makes a loop that does not slip?\n*a) Bowline\nb) Reef knot\nc) Sheet bend\n\n2. How many metres are there in a nautical mile?\nAnswer: 1852';

	onMount(() => {
		worker = new TextWorker();
		worker.onmessage = (event: MessageEvent<TextAnswer>) => (found = event.data);
		text = sessionStorage.getItem('pasted') ?? '';
		sessionStorage.removeItem('pasted');
		area?.focus();
		return () => {
			left = true;
			worker?.terminate();
		};
	});
	$effect(() => {
		const now = text;
		const timer = setTimeout(() => worker?.postMessage(now), 120);
		return () => clearTimeout(timer);
	});
	const broken = $derived(
		found?.questions.filter((read) => read.reports.some((report) => report.severity === 'broken')).length ?? 0
	);
	function show(from: number) {
		if (!area) return;
		const lines = text.split('\n');
		const start = lines.slice(0, from - 1).reduce((sum, line) => sum + line.length + 1, 0);
		area.focus();
		area.setSelectionRange(start, start + (lines[from - 1]?.length ?? 0));
		area.scrollTop = (from - 3) * parseFloat(getComputedStyle(area).lineHeight);
	}
	const uploads = getUploads();
	const { course } = untrack(() => data);
	let key = $state(0);
	/** The load that the text has become, while it is read. */
	let loadId = $state<number | null>(null);
	const mine = $derived(uploads.list.find((upload) => upload.key === key));
	const sending = $derived(loadId !== null || (mine !== undefined && mine.state !== 'failed'));
	const failure = $derived(
		mine?.failure ||
			(mine?.state === 'waiting'
				? 'The connection is lost. The text is still here, and goes as soon as it is back.'
				: '')
	);
	const fileName = $derived(
		/\.(txt|md)$/i.test(name)
			? name
			: `${name.trim() || found?.title || `Text of ${dateTime(new Date()).replace(/:/g, '.')}`}.txt`
	);
	function send() {
		if (mine) uploads.clear(mine.key);
		key = uploads.add(course, [new File([text], fileName)], (id) => {
			loadId = id;
			void review(id);
		});
	}
	/** Goes to the review as soon as the text is read; where it cannot be, the list of loads says why. */
	async function review(id: number) {
		for (;;) {
			const answer = await fetch(`/courses/${course.id}/loads/status`).catch(() => null);
			const loads = answer?.ok ? ((await answer.json()) as { loads: { id: number; state: string }[] }).loads : null;
			const state = loads && (loads.find((load) => load.id === id)?.state ?? 'gone');
			if (state === 'review') return goto(`/courses/${course.id}/loads/${id}`);
			if (state && state !== 'waiting' && state !== 'reading') return goto(`/courses/${course.id}/loads`);
			await new Promise((resolve) => setTimeout(resolve, 300));
			if (left) return;
		}
	}
	let left = false;
</script>

<svelte:head><title>Text · {data.course.name} · Yarn Barrow</title></svelte:head>
<Halves leftName="Text" rightName="Questions found so far">
	{#snippet left()}
		<p class="mute"><a class="word" href="/courses/{data.course.id}/loads">Loads</a> › text</p>
		<h1 class="visually-hidden">Text with questions</h1>
		<textarea
			bind:this={area}
			bind:value={text}
			class="textarea mono"
			spellcheck="false"
			aria-label="Text with questions"
			placeholder={`Paste or type questions here, such as\n\n${example}`}></textarea>
	{/snippet}
	{#snippet right()}
		<h2>
			<span role="status">
				{count(found?.questions.length ?? 0, 'question')} found{#if broken}, <Mark
						severity="broken"
						word="{broken} broken"
					/>{/if}
			</span>
		</h2>
		{#each found?.reports ?? [] as report, at (at)}<p class="mute mt-2 text-[13px]">{report.message}</p>{/each}
		{#each found?.questions ?? [] as read, at (at)}
			<article>
				<p class="faint text-[13px]">
					{at + 1} · {kindName(read.question.kind)}{read.question.points === null
						? ''
						: ` · ${count(read.question.points, 'point')}`}{read.question.category.length
						? ` · ${read.question.category.join(' › ')}`
						: ''} ·
					<button type="button" class="word" onclick={() => show(read.from)}>line {read.from}</button>
				</p>
				<QuestionView question={read.question} courseId={data.course.id} />
				{#each read.reports as report, n (n)}<p class="mt-1 text-[13px]">
						<Mark severity={report.severity} word={report.severity} />
						{report.message}
					</p>{/each}
			</article>
		{/each}
	{/snippet}
	{#snippet bar()}<div>
			<span class="mr-auto"
				>{#if failure}<span class="broken" role="alert">{failure}</span>{:else}Nothing goes into the course before the
					review.{/if}</span
			>
			<label>Name <input class="input w-60" bind:value={name} maxlength="120" placeholder={fileName} /></label>
			<button
				class="btn preset-filled-brand"
				type="button"
				disabled={!found?.questions.length || sending}
				onclick={send}
				>{loadId === null ? `Review ${count(found?.questions.length ?? 0, 'question')}` : 'Reading …'}</button
			>
		</div>{/snippet}
</Halves>

<style>
	textarea {
		flex: 1;
		min-height: 320px;
		margin-top: 8px;
		resize: none;
		line-height: 1.5;
		white-space: pre-wrap;
	}
	article {
		padding: 12px 0;
		border-bottom: 1px solid var(--line);
	}
</style>
