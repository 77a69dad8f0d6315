<script lang="ts">
	import NumberField from '$lib/ui/NumberField.svelte';
	import { goto } from '$app/navigation';
	import { navigating, page } from '$app/state';
	import Columns from '$lib/ui/Columns.svelte';
	import Strand from '$lib/ui/Strand.svelte';
	import { count, courseWords, dateTime, figure } from '$lib/ui/words';
	import { asForetold } from '$core/compare/proof';
	import { onMount } from 'svelte';
	import LossTable from './LossTable.svelte';
	import Proof from './Proof.svelte';
	import { asked, isSame, sentBy, sentIn, sentOf, type Sent } from './what';
	import Earlier from './Earlier.svelte';
	import WriteBar from './WriteBar.svelte';
	import Working from './Working.svelte';
	import { enhance, refresh } from '$lib/ui/refresh';

	let { data, form } = $props();
	let live = $state<typeof data.dispatches | null>(null);
	$effect(() => {
		void data.dispatches;
		live = null;
	});
	const dispatches = $derived(live ?? data.dispatches);
	const busy = $derived(dispatches.some((dispatch) => ['waiting', 'writing', 'proving'].includes(dispatch.state)));
	onMount(() => {
		const timer = setInterval(async () => {
			if (!busy) return;
			const answer = await fetch(
				`/courses/${data.course.id}/dispatch/status${page.url.searchParams.get('show') ? `?show=${page.url.searchParams.get('show')}` : ''}`
			).catch(() => null);
			if (!answer?.ok) return;
			live = (await answer.json()) as typeof data.dispatches;
			if (!live.some((dispatch) => ['waiting', 'writing', 'proving'].includes(dispatch.state))) await refresh();
		}, 700);
		return () => clearInterval(timer);
	});
	/** Where one is going on this page: what was chosen there is shown as chosen at once, and nothing of the choice before. */
	const going = $derived(navigating.to?.url.pathname === page.url.pathname ? navigating.to.url.searchParams : null);
	const inAll = $derived(data.loss.reduce((sum, line) => sum + line.count, 0));
	const of = (outcome: string) =>
		data.loss.filter((line) => line.outcome === outcome).reduce((sum, line) => sum + line.count, 0);
	const sent = $derived(going ? sentIn(going) : sentOf(data.what));
	const format = $derived(going?.get('as') ?? data.format.name);
	/** The dispatch that is asked for, or the last one of what is chosen, as the format that is chosen. */
	const shown = $derived(
		going
			? undefined
			: (dispatches.find((dispatch) => dispatch.id === Number(page.url.searchParams.get('show'))) ??
					dispatches.find((dispatch) => isSame(sentBy(dispatch), sent) && dispatch.format === data.format.name))
	);
	const stateOf = (dispatch: (typeof dispatches)[number]) =>
		dispatch.state === 'done' && dispatch.proof && !asForetold(dispatch.proof)
			? 'read back, and it differs'
			: states[dispatch.state];
	const address = (format: string, workedOut = data.workedOut) => `?${asked(sent)}&as=${format}&worked=${workedOut}`;
	const states = {
		waiting: 'waiting',
		writing: 'writing',
		proving: 'reading it back',
		done: 'proved',
		stopped: 'stopped',
		failed: 'failed'
	} as const;
</script>

{#snippet choice(offered: Sent, name: string, beside: string)}
	<button
		type="button"
		class="choice"
		class:chosen={isSame(offered, sent)}
		aria-pressed={isSame(offered, sent)}
		onclick={() => goto(`?${asked(offered)}&as=${data.format.name}`, { keepFocus: true })}
		><span class="cut" title={name}>{name}</span><span class="mute">{beside}</span></button
	>
{/snippet}
<svelte:head><title>Dispatch · {data.course.name} · Yarn Barrow</title></svelte:head>
<Columns
	name="dispatch"
	widths={[280, 380]}
	firstLabel="What is sent"
	middleLabel="What would be lost"
	lastLabel="Proof"
	list={false}
>
	{#snippet first()}
		<h1 class="text-[16px]!">What of {courseWords(data.course, data.courses)}</h1>
		{#if data.unlisted}{@const { what, title } = data.unlisted}{@render choice(
				sentOf(what)!,
				title,
				'selectionId' in what ? 'selected' : 'fixed'
			)}
			<h2 class="mt-5 text-[14px]!">or a bank</h2>{/if}
		{#each data.banks as bank (bank.id)}{@render choice(
				{ sort: 'bank', id: bank.id },
				bank.name,
				figure(bank.questions)
			)}{/each}
		{#if data.quizzes.length}<h2 class="mt-5 text-[14px]!">or a quiz</h2>{/if}
		{#each data.quizzes as quiz (quiz.id)}{@render choice(
				{ sort: 'quiz', id: quiz.id },
				quiz.title,
				count(quiz.parts, 'part')
			)}{/each}
		{#if !data.banks.length}<p class="mute mt-2">There is nothing to send yet.</p>{/if}
		<h2 class="mt-5">As</h2>
		<select
			class="select w-full"
			aria-label="Format"
			value={format}
			onchange={(event) => goto(address(event.currentTarget.value), { keepFocus: true })}
		>
			{#each data.formats as dispatch (dispatch.name)}<option value={dispatch.name}
					>{dispatch.title} ({dispatch.ending})</option
				>{/each}
		</select>
		{#if data.worksOut && data.loss.some((line) => line.kind === 'calculated')}
			<label class="mt-3 block"
				>Each calculated question as
				<NumberField
					whole
					required
					least={1}
					most={200}
					label="How many are worked out of each calculated question"
					bind:value={
						() => data.workedOut, (number) => void goto(address(data.format.name, number ?? 1), { keepFocus: true })
					}
				/>
				worked out</label
			>
		{/if}
		{#if data.what && !going && !data.working}<p
				class="mt-2 text-[13px] {of('lost') ? 'broken' : of('changed') ? 'doubtful' : 'whole'}"
			>
				{[of('changed') ? `changes ${of('changed')}` : '', of('lost') ? `loses ${of('lost')}` : '']
					.filter(Boolean)
					.join(', ') || 'loses nothing'}{data.quizLoss?.what.length
					? data.quizLoss.carried
						? '; changes the quiz'
						: '; leaves the quiz behind'
					: ''}
			</p>{/if}
	{/snippet}
	{#snippet middle()}
		<h2>
			What becomes of the questions as {data.formats.find((dispatch) => dispatch.name === format)?.title ??
				data.format.title}
		</h2>
		{#if going}<p class="mute mt-2" role="status">Working out what would be lost …</p>
		{:else if data.working}<Working working={data.working} />
		{:else if data.loss.length}
			<LossTable loss={data.loss} quizLoss={data.quizLoss} courseId={data.course.id} />
		{:else}<p class="mute mt-2">{data.what ? 'It holds no questions.' : 'Choose what to send.'}</p>{/if}
	{/snippet}
	{#snippet last()}
		{#if shown}
			<h2>{shown.state === 'done' ? 'Proof' : 'Dispatch'} of {shown.title}</h2>
			<p class="mute mb-2">{shown.file_name} · {shown.person}, {dateTime(shown.created)}</p>
			<div role="status">
				{#if shown.state === 'waiting' || shown.state === 'writing' || shown.state === 'proving'}
					<p class="my-2">
						<Strand value={shown.total ? shown.done / shown.total : null} label="Progress" />
						<span class="mute">{states[shown.state]}, {shown.done} of {count(shown.total, 'question')}</span>
					</p>
					<form method="POST" action="?/stop" use:enhance>
						<input type="hidden" name="dispatch" value={shown.id} /><button class="btn btn-sm preset-outlined-brand"
							>Stop</button
						>
					</form>
				{:else if shown.state === 'failed'}<p class="notice broken">{shown.failure}</p>
				{:else if shown.state === 'stopped'}<p class="notice">It was stopped; nothing was kept of it.</p>
				{:else if shown.proof}<Proof proof={shown.proof} dispatch={shown} courseId={data.course.id} />
				{/if}
			</div>
		{:else}<h2>Proof</h2>
			<p class="mute mt-2">
				{going
					? ''
					: 'Once a file is written, it is read back by the same readers and compared question by question. What was found stands here.'}
			</p>
		{/if}
		<Earlier dispatches={dispatches.filter(({ id }) => id !== shown?.id)} formats={data.formats} {stateOf} />
	{/snippet}
</Columns>
<WriteBar {data} {sent} {inAll} {of} going={going !== null} message={form?.message ?? ''} />

<style>
	.choice {
		display: flex;
		justify-content: space-between;
		gap: 10px;
		width: 100%;
		padding: 6px 8px;
		border-bottom: 1px solid var(--line);
		text-align: left;
	}
	button.choice {
		cursor: pointer;
	}
</style>
