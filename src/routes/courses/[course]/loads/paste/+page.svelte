<script lang="ts">
	import { goto } from '$app/navigation';
	import { kindName } from '$core/model/question';
	import Halves from '$lib/ui/Halves.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import QuestionView from '$lib/ui/QuestionView.svelte';
	import { count } from '$lib/ui/words';
	import type { TextAnswer } from '$lib/workers/text';
	import TextWorker from '$lib/workers/text?worker';
	import { Uploads } from '$lib/ui/uploads.svelte';
	import { onMount, untrack } from 'svelte';

	let { data } = $props();
	let text = $state('');
	let name = $state('pasted.txt');
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
		return () => worker?.terminate();
	});
	$effect(() => {
		const now = text;
		const timer = setTimeout(() => worker?.postMessage(now), 120);
		return () => clearTimeout(timer);
	});
	const broken = $derived(
		found?.questions.filter((one) => one.reports.some((report) => report.severity === 'broken')).length ?? 0
	);
	function show(from: number) {
		if (!area) return;
		const lines = text.split('\n');
		const start = lines.slice(0, from - 1).reduce((sum, line) => sum + line.length + 1, 0);
		area.focus();
		area.setSelectionRange(start, start + (lines[from - 1]?.length ?? 0));
		area.scrollTop = (from - 3) * parseFloat(getComputedStyle(area).lineHeight);
	}
	const uploads = untrack(
		() =>
			new Uploads(`/courses/${data.course.id}/loads/upload`, data.limit, '', () =>
				goto(`/courses/${data.course.id}/loads`)
			)
	);
	const sending = $derived(uploads.list.some((one) => one.state !== 'failed'));
	const failure = $derived(
		uploads.list.find((one) => one.failure)?.failure ??
			(uploads.list.some((one) => one.state === 'waiting')
				? 'The connection is lost. The text is still here, and goes as soon as it is back.'
				: '')
	);
	function send() {
		for (const one of uploads.list) uploads.clear(one.key);
		uploads.add([new File([text], /\.(txt|md)$/i.test(name) ? name : `${name || 'pasted'}.txt`)]);
	}
</script>

<svelte:head><title>Text · {data.course.name} · Yarn Barrow</title></svelte:head>
<Halves leftName="Text" rightName="Questions found so far">
	{#snippet left()}
		<p class="mute"><a class="word" href="/courses/{data.course.id}/loads">Loads</a> › text</p>
		<h1 class="visually-hidden">Text with questions</h1>
		<textarea
			bind:this={area}
			bind:value={text}
			class="field mono"
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
		{#each found?.questions ?? [] as one, at (at)}
			<article>
				<p class="faint text-[13px]">
					{at + 1} · {kindName(one.question.kind)}{one.question.points === null
						? ''
						: ` · ${count(one.question.points, 'point')}`}{one.question.category.length
						? ` · ${one.question.category.join(' › ')}`
						: ''} ·
					<button type="button" class="word" onclick={() => show(one.from)}>line {one.from}</button>
				</p>
				<QuestionView question={one.question} courseId={data.course.id} />
				{#each one.reports as report, n (n)}<p class="mt-1 text-[13px]">
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
			<label>Name <input class="field" bind:value={name} maxlength="120" /></label>
			<button class="button" type="button" disabled={!found?.questions.length || sending} onclick={send}
				>Review {count(found?.questions.length ?? 0, 'question')}</button
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
