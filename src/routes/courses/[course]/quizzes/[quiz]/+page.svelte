<script lang="ts">
	import { enhance } from '$app/forms';
	import { beforeNavigate, invalidate } from '$app/navigation';
	import type { Question } from '$core/kinds';
	import type { Mark as Marked } from '$core/scoring/score';
	import { pointsRange, poolOf } from '$core/draws/pool';
	import { presented } from '$core/draws/presented';
	import { pathOfKey } from '$core/take-in/paths';
	import type { DrawAnswer, DrawRequest } from '$lib/workers/draws';
	import DrawWorker from '$lib/workers/draws?worker';
	import Columns from '$lib/ui/Columns.svelte';
	import Toggle from '$lib/ui/Toggle.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import QuestionView from '$lib/ui/QuestionView.svelte';
	import Tabs from '$lib/ui/Tabs.svelte';
	import { page } from '$app/state';
	import { count, dateTime, figure } from '$lib/ui/words';
	import ArrowDown from '@lucide/svelte/icons/arrow-down';
	import ArrowUp from '@lucide/svelte/icons/arrow-up';
	import X from '@lucide/svelte/icons/x';
	import { onMount, untrack } from 'svelte';

	let { data } = $props();
	// svelte-ignore state_referenced_locally
	let quiz = $state(structuredClone(data.quiz));
	let chosen = $state(0);
	let tab = $state<'sheet' | 'sitting'>('sheet');
	let saved = $state('');
	let failure = $state('');
	let refusals = $state<DrawAnswer['refusals']>([]);
	let seed = $state('harbour-1');
	let sitting = $state<number[][] | null>(null);
	let drawnSeed = $state('');
	let questions = $state<Record<number, Question>>({});
	let marks = $state<Record<number, Marked | null>>({});
	let worker: Worker | undefined;
	let requests = 0;
	const waiting = new Map<number, (answer: DrawAnswer) => void>();

	/** What can be drawn, as far as it is here: what is chosen anew is asked for. */
	let more = $state.raw<Pick<typeof data.source, 'inCategory' | 'points'>>({ inCategory: {}, points: {} });
	const source = $derived({
		...data.source,
		inCategory: { ...data.source.inCategory, ...more.inCategory },
		points: { ...data.source.points, ...more.points }
	});
	const tree = $derived(data.source.tree);
	const pools = $derived(quiz.parts.map((part) => poolOf(part, source)));
	/** The categories that the parts mean and whose questions are not here yet. */
	const absent = $derived.by(() => {
		const under = new Map<number, number[]>();
		for (const { id, parentId } of tree)
			if (parentId !== null) under.set(parentId, [...(under.get(parentId) ?? []), id]);
		const meant = (id: number, deep: boolean): number[] =>
			deep ? [id, ...(under.get(id) ?? []).flatMap((child) => meant(child, true))] : [id];
		const here = new Set(tree.map(({ id }) => id));
		return [
			...new Set(quiz.parts.flatMap((part) => part.categories.flatMap((id) => meant(id, part.withUnder))))
		].filter((id) => here.has(id) && !Object.hasOwn(source.inCategory, id));
	});
	$effect(() => {
		const categories = absent;
		if (!categories.length) return;
		void (async () => {
			const answer = await fetch(`${page.url.pathname}/pool`, {
				method: 'POST',
				body: JSON.stringify({ categories, withUnder: false })
			});
			if (!answer.ok) return;
			const found = (await answer.json()) as typeof more;
			more = {
				inCategory: { ...more.inCategory, ...found.inCategory },
				points: { ...more.points, ...found.points }
			};
		})();
	});
	const drawn = (at: number) => quiz.parts[at]!.draw ?? pools[at]!.length;
	/** The points of a part for any draw: the least and the most. */
	const range = $derived(quiz.parts.map((part, at) => pointsRange(part, pools[at]!, source)));
	const total = $derived([
		range.reduce((a, [least]) => a + least, 0),
		range.reduce((a, [, most]) => a + most, 0)
	] as const);
	const inAll = $derived(quiz.parts.reduce((sum, _, at) => sum + drawn(at), 0));
	const rangeText = ([least, most]: readonly [number, number]) =>
		least === most
			? `${Math.round(least * 100) / 100}`
			: `${Math.round(least * 100) / 100} to ${Math.round(most * 100) / 100}`;
	/** What is gone, in words: what it was and since when. */
	const lostText = (one: (typeof quiz.parts)[number]['lost'][number]) =>
		`${one.kind === 'bank' ? `the bank ${one.bank}` : one.kind === 'category' ? `${pathOfKey(one.name).join(' › ')} in ${one.bank}` : `“${one.name}” in ${one.bank}`}, gone since ${dateTime(one.lost)}`;
	const nameOf = (id: number) => tree.find((node) => node.id === id)?.name ?? 'a category that is gone';
	function poolText(part: (typeof quiz.parts)[number]) {
		if (part.questions.length) return `${count(part.questions.length, 'question')} chosen by hand`;
		if (!part.categories.length) return part.lost.length ? 'its pool is gone' : 'no pool yet';
		return part.categories.map(nameOf).join(' + ') + (part.withUnder ? ' and all under' : '');
	}

	function ask(wantedSeed: string | null): Promise<DrawAnswer> {
		requests += 1;
		const request: DrawRequest = {
			id: requests,
			seed: wantedSeed,
			parts: quiz.parts.map((part, at) => ({
				pool: $state.snapshot(pools[at]!) as number[],
				draw: part.draw,
				shuffle: part.shuffleQuestions
			}))
		};
		return new Promise((resolve) => {
			waiting.set(request.id, resolve);
			worker?.postMessage(request);
		});
	}
	onMount(() => {
		worker = new DrawWorker();
		worker.onmessage = ({ data: answer }: MessageEvent<DrawAnswer>) => {
			waiting.get(answer.id)?.(answer);
			waiting.delete(answer.id);
		};
		void look();
		return () => worker?.terminate();
	});
	async function look() {
		const mine = requests + 1;
		const answer = await ask(null);
		if (mine === answer.id) refusals = answer.refusals;
	}

	let last = $state(JSON.stringify(untrack(() => [quiz.title, quiz.parts])));
	let timer: ReturnType<typeof setTimeout> | undefined;
	$effect(() => {
		const now = JSON.stringify([quiz.title, quiz.parts]);
		if (now === untrack(() => last)) return;
		last = now;
		sitting = null;
		saved = 'not saved yet';
		untrack(() => void look());
		clearTimeout(timer);
		if (data.mayChange) timer = setTimeout(save, 700);
	});
	/** Where it is saved, also while one is on the way to another page. */
	const address = untrack(() => `/courses/${data.course.id}/quizzes/${quiz.id}`);
	let saving: Promise<void> = Promise.resolve();
	function save() {
		clearTimeout(timer);
		saving = saving.then(async () => {
			const answer = await fetch(address, {
				method: 'PUT',
				headers: { 'Content-Type': 'application/json', Accept: 'application/json' },
				body: JSON.stringify({
					title: quiz.title,
					state: quiz.state,
					version: quiz.version,
					parts: quiz.parts.map((part) => ({ ...part, lost: part.lost.map((one) => one.id) }))
				})
			}).catch(() => null);
			if (answer?.ok) {
				quiz.version = ((await answer.json()) as { version: number }).version;
				saved = `saved ${new Date().toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}`;
				failure = '';
				void invalidate('barrow:course');
			} else {
				saved = 'not saved';
				failure = answer
					? (((await answer.json().catch(() => null)) as { message?: string } | null)?.message ??
						'It could not be saved.')
					: 'The connection is lost; it will be saved with your next change.';
			}
		});
		return saving;
	}
	beforeNavigate(() => {
		if (saved === 'not saved yet') void save();
	});

	function add() {
		quiz.parts.push({
			title: `Part ${quiz.parts.length + 1}`,
			draw: 5,
			pointsEach: null,
			shuffleQuestions: true,
			shuffleOptions: true,
			withUnder: true,
			categories: [],
			questions: [],
			lost: []
		});
		chosen = quiz.parts.length - 1;
	}
	function move(at: number, by: number) {
		const [part] = quiz.parts.splice(at, 1);
		quiz.parts.splice(at + by, 0, part!);
		chosen = at + by;
	}
	function whole(text: string, least: number): number | null {
		const value = Number(text);
		return text.trim() === '' || !Number.isFinite(value) ? null : Math.max(least, value);
	}
	async function draw(next: string) {
		seed = next;
		const answer = await ask(next);
		refusals = answer.refusals;
		if (!answer.sitting) {
			sitting = null;
			return;
		}
		const ids = answer.sitting.parts.flat();
		const response = await fetch(`${address}/questions`, {
			method: 'POST',
			headers: { 'Content-Type': 'application/json' },
			body: JSON.stringify(ids)
		});
		if (!response.ok) return;
		questions = (await response.json()) as Record<number, Question>;
		marks = {};
		drawnSeed = next;
		sitting = answer.sitting.parts;
	}
	function another() {
		const number = /^(.*?)(\d+)$/.exec(seed);
		void draw(number ? `${number[1]}${Number(number[2]) + 1}` : `${seed}-2`);
	}
	const shownAs = (question: Question, id: number, part: number) =>
		presented(question, drawnSeed, id, quiz.parts[part]?.shuffleOptions ?? true);
	const worth = (part: number, id: number) => quiz.parts[part]!.pointsEach ?? questions[id]?.points ?? 0;
	const earned = $derived(
		(sitting ?? []).reduce(
			(sum, ids, part) => sum + ids.reduce((inner, id) => inner + (marks[id]?.credit ?? 0) * worth(part, id), 0),
			0
		)
	);
	const outOf = $derived(
		(sitting ?? []).reduce((sum, ids, part) => sum + ids.reduce((inner, id) => inner + worth(part, id), 0), 0)
	);
	const answered = $derived(Object.values(marks).filter((mark) => mark).length);
	const part = $derived(quiz.parts[chosen]);
</script>

<svelte:head><title>{quiz.title} · Quizzes · Yarn Barrow</title></svelte:head>
<Columns name="quiz" widths={[264, 380]} middleLabel="The quiz" lastLabel="The part" list={false}>
	{#snippet middle()}
		<div class="mb-2 flex items-center gap-3">
			<h1 class="visually-hidden">{quiz.title}</h1>
			<input class="title heading" aria-label="Title of the quiz" bind:value={quiz.title} disabled={!data.mayChange} />
			<span class="mute text-[13px]" role="status">{saved}</span>
			<a class="btn btn-sm preset-outlined-brand ml-auto" href="/courses/{data.course.id}/dispatch?quiz={quiz.id}"
				>Dispatch it</a
			>
		</div>
		{#if failure}<p class="notice broken" role="alert">{failure}</p>{/if}
		<Tabs
			tabs={[
				{ value: 'sheet', name: 'Draw sheet' },
				{ value: 'sitting', name: 'A sitting' }
			]}
			bind:value={
				() => tab,
				(value: 'sheet' | 'sitting') => {
					tab = value;
					if (value === 'sitting' && !sitting) void draw(seed);
				}
			}
			label="The quiz"
		>
			{#snippet panel(shown)}
				{#if shown === 'sheet'}
					<table class="table parts">
						<colgroup
							><col style="width: 20%" /><col /><col style="width: 122px" /><col style="width: 88px" /><col
								style="width: 60px"
							/><col style="width: 92px" /></colgroup
						>
						<thead
							><tr
								><th>Part</th><th>Pool</th><th class="number">draw</th><th class="number">points each</th><th
									class="number">total</th
								><th><span class="visually-hidden">Order</span></th></tr
							></thead
						>
						<tbody>
							{#each quiz.parts as one, at (at)}
								{@const refusal = refusals.find((other) => other.part === at)}
								<tr class:chosen={at === chosen} onclick={() => (chosen = at)}>
									<td
										><input
											class="input w-full"
											aria-label="Title of part {at + 1}"
											bind:value={one.title}
											disabled={!data.mayChange}
											onfocus={() => (chosen = at)}
										/></td
									>
									<td>
										<button type="button" class="text-left" onclick={() => (chosen = at)}>{poolText(one)}</button>
										<span class="roomy mute block text-[13px]"
											>{one.shuffleQuestions ? 'questions shuffled' : 'in order'}, {one.shuffleOptions
												? 'options shuffled'
												: 'options in order'}</span
										>
										{#each one.lost as gone (gone.id)}<span class="doubtful block text-[13px]"
												><Mark severity="doubtful" word="Gone:" />
												{lostText(gone)}{#if data.mayChange}
													<button
														type="button"
														class="word"
														aria-label="Do not wait for {lostText(gone)}"
														onclick={() => (one.lost = one.lost.filter((other) => other.id !== gone.id))}
														>forget it</button
													>{/if}</span
											>{/each}
										{#if refusal}<span class="broken block text-[13px]" role="alert"
												><Mark severity="broken" word="Cannot be filled." /> {refusal.message}</span
											>{/if}
									</td>
									<td class="number whitespace-nowrap"
										><input
											class="input w-14 text-right"
											inputmode="numeric"
											aria-label="How many part {at + 1} draws"
											placeholder="all"
											value={one.draw ?? ''}
											disabled={!data.mayChange}
											onfocus={() => (chosen = at)}
											onchange={(event) => {
												const value = whole(event.currentTarget.value, 1);
												one.draw = value === null ? null : Math.round(value);
											}}
										/> <span class="mute">of {pools[at]!.length}</span></td
									>
									<td class="number"
										><input
											class="input w-16 text-right"
											inputmode="decimal"
											aria-label="Points for each question of part {at + 1}"
											placeholder="its own"
											value={one.pointsEach ?? ''}
											disabled={!data.mayChange}
											onfocus={() => (chosen = at)}
											onchange={(event) => (one.pointsEach = whole(event.currentTarget.value, 0))}
										/></td
									>
									<td class="number"><b>{rangeText(range[at]!)}</b></td>
									<td class="number whitespace-nowrap">
										{#if data.mayChange}
											<button
												type="button"
												class="icon"
												aria-label="Move part {at + 1} up"
												disabled={at === 0}
												onclick={(event) => {
													event.stopPropagation();
													move(at, -1);
												}}><ArrowUp size={15} /></button
											>
											<button
												type="button"
												class="icon"
												aria-label="Move part {at + 1} down"
												disabled={at === quiz.parts.length - 1}
												onclick={(event) => {
													event.stopPropagation();
													move(at, 1);
												}}><ArrowDown size={15} /></button
											>
											<button
												type="button"
												class="icon"
												aria-label="Take part {at + 1} out"
												onclick={(event) => {
													event.stopPropagation();
													quiz.parts.splice(at, 1);
													chosen = Math.max(0, at - 1);
												}}><X size={15} /></button
											>
										{/if}
									</td>
								</tr>
							{/each}
						</tbody>
						<tfoot>
							<tr>
								<td
									>{#if data.mayChange}<button type="button" class="word" onclick={add}>+ part</button>{/if}</td
								>
								<td class="mute"
									>{quiz.parts.length ? '' : 'A part draws so many questions from the categories you choose.'}</td
								>
								<td class="number"><b>{inAll}</b></td>
								<td></td>
								<td class="number"><b>{rangeText(total)}</b></td>
								<td></td>
							</tr>
						</tfoot>
					</table>
					{#if quiz.parts.length}
						<p class="mt-3">
							{#if refusals.length}<Mark severity="broken" word="{count(refusals.length, 'part')} cannot be filled." />
							{:else}<Mark severity="whole" word="Can be filled in every draw." />{/if}
							{#if total[0] !== total[1]}<span class="doubtful ml-3"
									><Mark
										severity="doubtful"
										word="Totals differ: two students may be marked out of {rangeText(total)}."
									/> Set the points each to make them equal.</span
								>{/if}
						</p>
					{/if}
				{:else}
					<div class="mb-4 flex flex-wrap items-center gap-2">
						<label class="mute flex items-center gap-2"
							>Seed <input class="input w-36" bind:value={seed} onchange={() => draw(seed)} /></label
						>
						<button class="btn btn-sm preset-filled-brand" type="button" onclick={another}>Redraw</button>
						{#if sitting}<span class="ml-auto" role="status"
								><b>{Math.round(earned * 100) / 100} of {Math.round(outOf * 100) / 100} points</b>
								<span class="mute">{answered} of {sitting.flat().length} marked</span></span
							>{/if}
					</div>
					{#if sitting}
						{#each sitting as ids, at (at)}
							<h2 class="mt-5 mb-1">{quiz.parts[at]?.title}</h2>
							{#each ids as id, n (`${drawnSeed}-${id}`)}
								{@const given = questions[id]}
								{#if given}
									{@const { question, order } = shownAs(given, id, at)}
									<article class="question">
										<p class="mute mb-1 text-[13px]">{n + 1} · {count(worth(at, id), 'point')}</p>
										<QuestionView
											{question}
											courseId={data.course.id}
											mode="try"
											pointsEach={worth(at, id)}
											{order}
											onmark={(mark) => (marks[id] = mark)}
										/>
									</article>
								{/if}
							{/each}
						{/each}
					{:else}<p class="notice broken">
							{quiz.parts.length ? 'No sitting can be drawn as the sheet stands.' : 'The quiz has no parts yet.'}
							{refusals.map((one) => `${quiz.parts[one.part]?.title}: ${one.message}`).join(' ')}
						</p>{/if}
				{/if}
			{/snippet}
		</Tabs>
	{/snippet}
	{#snippet last()}
		{#if part}
			<h2>{part.title || 'This part'}: pool</h2>
			<p class="mute mt-1">
				{count(pools[chosen]!.length, 'question')} to draw from. Unreadable questions are left out, and texts without an answer
				where a part draws.
			</p>
			{#if part.questions.length}
				<p class="notice">
					This part names its questions, as the package did that it came in. {#if data.mayChange}<button
							type="button"
							class="word"
							onclick={() => (part.questions = [])}>Draw from categories instead</button
						>{/if}
				</p>
			{:else}
				<fieldset disabled={!data.mayChange}>
					<legend class="visually-hidden">What it draws from</legend>
					<div class="my-2">
						<Toggle bind:on={part.withUnder} disabled={!data.mayChange} label="with what is under each" />
					</div>
					<div class="pool">
						{#each tree as node (node.id)}
							<label style="padding-left: {node.depth * 16}px" class:font-bold={node.id < 0}>
								<input type="checkbox" value={node.id} bind:group={part.categories} />
								<span class="cut flex-1">{node.name}</span>
								<span class="mute">{figure(part.withUnder ? node.all : node.own)}</span>
							</label>
						{:else}<p class="mute">This course has no bank yet.</p>{/each}
					</div>
				</fieldset>
			{/if}
			<h3 class="mt-5">Order</h3>
			<div class="mt-1">
				<Toggle bind:on={part.shuffleQuestions} disabled={!data.mayChange} label="shuffle the questions" />
			</div>
			<div class="mt-1">
				<Toggle
					bind:on={part.shuffleOptions}
					disabled={!data.mayChange}
					label="shuffle the options; pinned ones stay, and questions that forbid it"
				/>
			</div>
		{:else}<p class="mute">Add a part, and choose here what it draws from.</p>{/if}
		{#if data.mayChange}<form method="POST" action="?/drop" use:enhance class="mt-10">
				<button class="btn btn-sm preset-outlined-brand">Throw this quiz away</button>
			</form>{/if}
	{/snippet}
</Columns>

<style>
	.title {
		font-size: 22px;
		background: transparent;
		border-bottom: 1px dashed var(--line2);
		min-width: 0;
		flex: 0 1 420px;
	}
	.parts {
		table-layout: fixed;
	}
	.parts button {
		cursor: pointer;
	}
	.icon {
		padding: 4px;
		min-width: 24px;
		color: var(--ink2);
	}
	.icon:disabled {
		opacity: 0.3;
	}
	.pool label {
		display: flex;
		align-items: center;
		gap: 8px;
		padding-block: 4px;
		border-bottom: 1px solid var(--line);
	}
	.question {
		max-width: 760px;
		padding: 12px 0 16px;
		border-bottom: 1px solid var(--line);
	}
</style>
