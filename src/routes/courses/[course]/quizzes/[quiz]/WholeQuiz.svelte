<script lang="ts">
	import type { AlikePair } from '$lib/server/quizzes/alike';
	import type { NamedQuestion } from '$lib/server/quizzes/pool-page';
	import { send } from '$lib/ui/doing';
	import { count } from '$lib/ui/words';
	import FindQuestion from './FindQuestion.svelte';
	import type { Sheet } from './sheet.svelte';

	/** What holds for the whole quiz: pairs that never come together, groups that come whole, options that keep their order. */
	let { sheet, mayChange, courseId }: { sheet: Sheet; mayChange: boolean; courseId: number } = $props();

	const rules = $derived(sheet.quiz.rules);
	const may = $derived(mayChange && sheet.knowsQuotas);
	let names = $state.raw(new Map<number, NamedQuestion>());
	let alike = $state.raw<AlikePair[] | null>(null);
	let bound = $state.raw<{ id: number; reason: string }[]>([]);
	let first = $state.raw<NamedQuestion | null>(null);
	let group = $state.raw<NamedQuestion[]>([]);

	const learn = (questions: readonly NamedQuestion[]) =>
		(names = new Map([...names, ...questions.map((question) => [question.id, question] as const)]));
	const called = (id: number) => names.get(id)?.title ?? 'a question that is gone';
	const wanted = $derived([
		...new Set([...rules.never.flat(), ...rules.together.flat(), ...rules.fixedOptions, ...bound.map(({ id }) => id)])
	]);
	$effect(() => {
		const missing = wanted.filter((id) => !names.has(id));
		if (!missing.length) return;
		void send<NamedQuestion[]>(`${sheet.address}/names`, missing).then((answer) => {
			if (answer.ok && answer.value.length) learn(answer.value);
		});
	});
	$effect(() => {
		void sheet.changes;
		void send<{ id: number; reason: string }[]>(`${sheet.address}/bound`, sheet.sent).then((answer) => {
			if (answer.ok) bound = answer.value;
		});
	});
	const isKept = (one: number, other: number) => rules.never.some((pair) => pair.includes(one) && pair.includes(other));
	async function propose() {
		const answer = await send<{ pairs: AlikePair[]; questions: NamedQuestion[] }>(`${sheet.address}/alike`, sheet.sent);
		if (!answer.ok) return;
		learn(answer.value.questions);
		alike = answer.value.pairs;
	}
	const open = $derived((alike ?? []).filter(({ one, other }) => !isKept(one, other)));
	function keepApart(pairs: readonly AlikePair[]) {
		sheet.quiz.rules.never = [...rules.never, ...pairs.map(({ one, other }) => [one, other])];
	}
	function pickPair(question: NamedQuestion) {
		learn([question]);
		if (!first) return void (first = question);
		if (first.id !== question.id && !isKept(first.id, question.id))
			sheet.quiz.rules.never = [...rules.never, [first.id, question.id]];
		first = null;
	}
	const inGroups = $derived(new Set(rules.together.flat()));
	function pickMember(question: NamedQuestion) {
		learn([question]);
		if (!group.some(({ id }) => id === question.id) && !inGroups.has(question.id)) group = [...group, question];
	}
	function makeGroup() {
		sheet.quiz.rules.together = [...rules.together, group.map(({ id }) => id)];
		group = [];
	}
	const openBound = $derived(bound.filter(({ id }) => !rules.fixedOptions.includes(id)));
</script>

{#if !sheet.knowsQuotas}<p class="notice">
		Rule 1, by which this quiz draws, knows no pairs and no groups. Change the rule on the draw sheet.
	</p>{/if}
<div class="rules">
	<section>
		<h2>Never in one sitting</h2>
		<p class="mute">Two questions that give each other away, or ask the same. No student gets both.</p>
		<ul>
			{#each rules.never as pair, at (pair)}<li>
					<span class="min-w-0"
						><span class="cut block">{called(pair[0]!)}</span><span class="cut block">{called(pair[1]!)}</span></span
					>{#if may}<button
							type="button"
							class="word"
							aria-label="Allow {called(pair[0]!)} and {called(pair[1]!)} together"
							onclick={() => (sheet.quiz.rules.never = rules.never.filter((_, other) => other !== at))}>allow</button
						>{/if}
				</li>{:else}<li class="mute">No pair yet.</li>{/each}
		</ul>
		{#if may}
			<button type="button" class="btn btn-sm preset-outlined-brand" onclick={propose}
				>Look for questions that are alike</button
			>
			{#if alike}
				<p class="mt-2">
					{open.length
						? `${count(open.length, 'pair')} of the pools ${open.length === 1 ? 'asks' : 'ask'} the same, or nearly.`
						: 'No two questions of the pools are alike beside those above.'}
					{#if open.length}<button type="button" class="word" onclick={() => keepApart(open)}
							>Keep all {open.length} apart</button
						>{/if}
				</p>
				<ul>
					{#each open.slice(0, 30) as pair (`${pair.one} ${pair.other}`)}<li>
							<span class="min-w-0"
								><span class="cut block">{called(pair.one)}</span><span class="cut block">{called(pair.other)}</span
								></span
							><button type="button" class="word" onclick={() => keepApart([pair])}>keep apart</button>
						</li>{/each}
				</ul>
			{/if}
			<FindQuestion
				{courseId}
				label={first ? `and “${first.title}” never with` : 'Or by hand: one question'}
				pick={pickPair}
			/>
		{/if}
	</section>
	<section>
		<h2>Always together</h2>
		<p class="mute">Questions about one text or picture: all of them or none, side by side, in this order.</p>
		<ul>
			{#each rules.together as members, at (members)}<li>
					<ol class="min-w-0">
						{#each members as id (id)}<li class="cut">{called(id)}</li>{/each}
					</ol>
					{#if may}<button
							type="button"
							class="word"
							onclick={() => (sheet.quiz.rules.together = rules.together.filter((_, other) => other !== at))}
							>take apart</button
						>{/if}
				</li>{:else}<li class="mute">No group yet.</li>{/each}
		</ul>
		{#if may}
			{#if group.length}<ol class="mb-1">
					{#each group as { id, title } (id)}<li class="cut">{title}</li>{/each}
				</ol>
				<button type="button" class="btn btn-sm preset-filled-brand" disabled={group.length < 2} onclick={makeGroup}
					>Keep these {group.length} together</button
				>{/if}
			<FindQuestion {courseId} label={group.length ? 'and' : 'A new group: its first question'} pick={pickMember} />
		{/if}
	</section>
	<section>
		<h2>Options that stay</h2>
		<p class="mute">
			Where the options of a part are shuffled, those of these questions keep their order all the same.
		</p>
		<ul>
			{#each rules.fixedOptions as id (id)}<li>
					<span class="cut">{called(id)}</span>{#if mayChange}<button
							type="button"
							class="word"
							onclick={() => (sheet.quiz.rules.fixedOptions = rules.fixedOptions.filter((other) => other !== id))}
							>shuffle</button
						>{/if}
				</li>{:else}<li class="mute">None.</li>{/each}
		</ul>
		{#if openBound.length}
			<p class="doubtful">
				{count(openBound.length, 'question')} of the parts that are shuffled {openBound.length === 1 ? 'names' : 'name'}
				places or letters of options:
				{#if mayChange}<button
						type="button"
						class="word"
						onclick={() => (sheet.quiz.rules.fixedOptions = [...rules.fixedOptions, ...openBound.map(({ id }) => id)])}
						>keep the order of all {openBound.length}</button
					>{/if}
			</p>
			<ul>
				{#each openBound.slice(0, 50) as { id, reason } (id)}<li>
						<span class="min-w-0"
							><span class="cut block">{called(id)}</span><span class="mute block text-[13px]">{reason}</span></span
						>{#if mayChange}<button
								type="button"
								class="word"
								aria-label="Keep the order of {called(id)}"
								onclick={() => (sheet.quiz.rules.fixedOptions = [...rules.fixedOptions, id])}>keep</button
							>{/if}
					</li>{/each}
			</ul>
		{/if}
	</section>
</div>

<style>
	.rules {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(250px, 1fr));
		gap: 20px 28px;
		margin-top: 12px;
	}
	section {
		min-width: 0;
	}
	ul > li {
		display: flex;
		gap: 12px;
		justify-content: space-between;
		align-items: center;
		padding: 5px 0;
		border-bottom: 1px solid var(--line);
	}
	ol {
		list-style: decimal inside;
	}
	button {
		cursor: pointer;
		flex-shrink: 0;
	}
</style>
