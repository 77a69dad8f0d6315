<script lang="ts">
	import { enhance } from '$app/forms';
	import { kinds, kindName } from '$core/kinds';
	import { checkOf, mendTitle } from '$core/checks';
	import { takesPoints } from '$core/take-in/adjust';
	import type { Match } from '$core/take-in/plan-row';
	import { pathKey, pathOfKey } from '$core/take-in/paths';
	import type { CategorySource, StagedQuestion } from '$lib/server/loads/review';
	import Findings from '$lib/ui/Findings.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import { wholeList } from '$lib/ui/pages.svelte';
	import Rows from '$lib/ui/Rows.svelte';
	import Staged from '$lib/ui/Staged.svelte';
	import { ruleShort, ruleTitle } from '$lib/ui/rule';
	import { bytes, count, pathText } from '$lib/ui/words';
	import { onMount, untrack } from 'svelte';
	import Changes from './Changes.svelte';
	import Contents from './Contents.svelte';
	import QuizBank from './QuizBank.svelte';
	import { Review } from './review.svelte';
	import Rules from './Rules.svelte';

	let { data, form } = $props();
	type Row = (typeof data.questions)[number];

	const fileName = untrack(() => data.one.file_name.replace(/\.[^.]+$/, '').replace(/[-_]+/g, ' '));
	/** A name for a new bank that none of the course has. */
	function freeName(wanted: string): string {
		const taken = new Set(data.banks.map((one) => one.name.toLowerCase()));
		const base = wanted.slice(0, 180);
		for (let at = 1; ; at += 1) {
			const name = at === 1 ? base : `${base} (${at})`;
			if (!taken.has(name.toLowerCase())) return name;
		}
	}
	const review = untrack(
		() =>
			new Review({
				address: `/courses/${data.course.id}/loads/${data.one.id}`,
				questions: data.questions,
				now: data.now,
				remembered: data.remembered,
				bankId: data.likely?.bankId ?? null,
				bankName: freeName(data.one.package_title || fileName),
				quizzes: data.quizzes.length,
				pathsOf: (bankId) => data.banks.find((one) => one.id === bankId)?.paths ?? []
			})
	);
	$effect(() => {
		void JSON.stringify(review.decision);
		if (data.mayChange) untrack(() => review.keep());
	});
	onMount(() => {
		const timer = setInterval(() => void review.look(), 2500);
		return () => clearInterval(timer);
	});

	let rule = $state('');
	let kind = $state('');
	let match = $state<Match | ''>('');
	let order = $state<'file' | 'category' | 'kind' | 'snag'>('file');
	let words = $state('');
	let category = $state<string | null>(null);
	let chosen = $state<number | null>(null);
	let picked = $state.raw(new Set<number>());
	let shown = $state<StagedQuestion | null>(null);
	let aboutFile = $state(false);
	let panel = $state<'' | 'rules' | 'changes'>('');
	let pressed = $state(false);
	let done = $state('');
	let mendedHere = 0;
	let placing = $state(false);
	let sure = $state(false);
	let source = $state(untrack(() => data.sources.now));
	const sourceWords: Record<CategorySource, string> = {
		package: '',
		sections: 'its sections',
		metadata: 'its metadata',
		folders: 'its folders'
	};
	let asked = 0;
	/** Letters of a title that are drawn: more than fit, and few enough that ten thousand lines scroll without a stutter. */
	const mostShown = 90;

	const matchWords: Record<Match, string> = {
		new: 'new',
		same: 'the same',
		changed: 'changed',
		near: 'nearly the same'
	};
	const kindsHere = $derived(kinds.filter((one) => review.questions.some((row) => row.kind === one)));
	const rulesHere = $derived.by(() => {
		const found = new Map<string, number>();
		for (const row of review.questions)
			for (const mark of row.marks) found.set(mark.rule, (found.get(mark.rule) ?? 0) + 1);
		return [...found].sort((a, b) => b[1] - a[1]);
	});
	const matchesHere = $derived(
		(['same', 'changed', 'near', 'new'] as const).flatMap((one) => {
			const many = review.questions.filter((row) => row.match === one).length;
			return many ? [[one, many] as const] : [];
		})
	);
	const ranks = ['broken', 'doubtful', 'untidy'];
	const worst = (row: Row) => [...row.marks].sort((a, b) => ranks.indexOf(a.severity) - ranks.indexOf(b.severity))[0];
	const short = (mark: Row['marks'][number]) => ruleShort(mark.rule);
	const orders: Record<typeof order, (row: Row) => string | number> = {
		file: (row) => row.number,
		category: (row) => row.category,
		kind: (row) => kindName(row.kind),
		snag: (row) => {
			const mark = worst(row);
			return mark ? `${ranks.indexOf(mark.severity)}${mark.rule}` : '9';
		}
	};
	// a filter whose last question is gone shows everything again, not an empty list
	$effect(() => {
		if (rule && rule !== 'any' && !rulesHere.some(([one]) => one === rule)) rule = '';
		if (kind && !kindsHere.some((one) => one === kind)) kind = '';
		if (match && !matchesHere.some(([one]) => one === match)) match = '';
		if (category !== null && !review.tree.some((line) => line.key === category)) category = null;
	});
	const rows = $derived.by(() => {
		const wanted = words.toLowerCase();
		const found = review.questions.filter(
			(row) =>
				(!rule || (rule === 'any' ? row.marks.length > 0 : row.marks.some((mark) => mark.rule === rule))) &&
				(!kind || row.kind === kind) &&
				(!match || row.match === match) &&
				(category === null ||
					row.category === category ||
					(category !== '' && row.category.startsWith(`${category}\n`))) &&
				(!wanted || row.title.toLowerCase().includes(wanted))
		);
		if (order === 'file') return found;
		const by = orders[order];
		return [...found].sort((a, b) => (by(a) < by(b) ? -1 : by(a) > by(b) ? 1 : a.number - b.number));
	});
	const list = $derived(wholeList(rows));
	const place = $derived(new Map(review.questions.map((row, at) => [row.id, at])));
	const outcomeOf = (row: Row) => review.plan.outcomes[place.get(row.id)!]!;
	const current = $derived(review.questions[place.get(chosen ?? -1) ?? -1]);
	/** The row of the question that is seen, which may still be the one before while the chosen one is fetched. */
	const showing = $derived(review.questions[place.get(shown?.id ?? -1) ?? -1]);
	const selection = $derived([...picked].filter((id) => place.has(id)));
	const mendable = $derived(
		rulesHere.filter(
			([one]) =>
				mendTitle(one) &&
				review.questions.some((row) => picked.has(row.id) && row.marks.some((mark) => mark.rule === one))
		)
	);
	const plan = $derived(review.plan);
	/** What a question is worth once it is taken in. */
	const pointsOf = (row: Row) =>
		review.decision.points !== null && takesPoints(row.kind) && !row.alone.includes('points')
			? review.decision.points
			: row.points;
	const effects = $derived(
		plan.effects
			.map((effect) => `${effect.what}: ${effect.questions ? count(effect.questions, 'question') : 'none'}`)
			.join('; ')
	);
	const why = $derived(
		data.likely && review.decision.bankId === data.likely.bankId
			? `${data.likely.there.toLocaleString('en')} of its ${data.likely.of.toLocaleString('en')} ${data.likely.why} are there already`
			: ''
	);
	const bank = $derived(data.banks.find((one) => one.id === review.decision.bankId));
	const target = $derived(
		`${data.course.name} › ${review.decision.bankId === null ? review.decision.bankName.trim() || 'a new bank' : bank?.name}`
	);
	const quizBankName = $derived(
		review.decision.quizBank?.bankId == null
			? review.decision.quizBank?.bankName.trim() || 'a new bank'
			: data.banks.find((one) => one.id === review.decision.quizBank?.bankId)?.name
	);
	const rest = $derived(
		[
			[plan.replaced, 'in the place of an older one'],
			[plan.skipped, 'skipped as already there'],
			[plan.aside, 'set aside'],
			[plan.left, 'left out']
		]
			.filter(([number]) => number)
			.map(([number, what]) => `${number!.toLocaleString('en')} ${what}`)
			.join(', ')
	);

	async function choose(row: { id: number }) {
		chosen = row.id;
		aboutFile = false;
		asked += 1;
		const mine = asked;
		const answer = await fetch(`/courses/${data.course.id}/loads/${data.one.id}/questions/${row.id}`);
		if (mine === asked && answer.ok) shown = (await answer.json()) as StagedQuestion;
	}
	$effect(() => {
		if (chosen === null && data.questions[0])
			void choose(data.questions.find((row) => row.marks.length) ?? data.questions[0]);
		else if (!data.questions.length) aboutFile = true;
	});
	function pick(ids: number[], on: boolean) {
		const next = new Set(picked);
		for (const id of ids)
			if (on) next.add(id);
			else next.delete(id);
		picked = next;
	}
	/** Does something to what is selected, or to one question, and shows that one anew. */
	async function act(what: Parameters<Review['ask']>[0], said = ''): Promise<boolean> {
		done = '';
		const answer = await review.ask(what);
		if (!answer) return false;
		if (answer.mended) {
			mendedHere += answer.mended.mended;
			done = `Mended ${count(answer.mended.mended, 'question')}${mendedHere > answer.mended.mended ? `, ${mendedHere.toLocaleString('en')} since you came here` : ''}${answer.mended.left ? `; ${answer.mended.left} could not be changed` : ''}.`;
		} else done = said;
		if (chosen !== null) void choose({ id: chosen });
		return true;
	}
	async function handIn(id: number, name: string, file: File) {
		const number = await review.handIn(id, name, file);
		if (number === null) return;
		done = `“${name}” is there now, in ${count(number, 'question')}.`;
		void choose({ id });
	}
	const steps = (text: string) =>
		text
			.split('/')
			.map((one) => one.trim())
			.filter(Boolean);
	/** How many of some categories are new, in the words of the sentence. */
	function ofThemNew(all: number, fresh: number): string {
		if (fresh === all) return all === 1 ? 'a new one' : 'all new';
		if (fresh === 0) return all === 1 ? 'there already' : 'all there already';
		return `${fresh} of them new`;
	}
</script>

<svelte:head><title>{data.one.file_name} · Review · Yarn Barrow</title></svelte:head>
<div class="columns">
	<section class="column" aria-label="Contents">
		<div class="flex items-baseline justify-between">
			<h1 class="text-[16px]!">Contents</h1>
			<a class="word text-[13px]" href="/courses/{data.course.id}/loads">all loads</a>
		</div>
		<p class="mute mb-2 mt-1 break-words">
			{data.one.file_name} · {#if data.one.format && data.questions.length}{data.one.format} ·{/if}
			<span class="whitespace-nowrap">{bytes(data.one.size)}</span>
			· <span class="whitespace-nowrap">{count(data.questions.length, 'question')}</span>
		</p>
		{#if data.sources.others.length && data.mayChange}
			<label class="mb-1 block text-[13px]"
				>Categories from
				<select class="field" bind:value={source} onchange={() => source && act({ do: 'source', from: source })}
					><option value="package">the file, as it was read</option>{#each data.sources.others as one (one)}<option
							value={one}>{sourceWords[one]}</option
						>{/each}</select
				></label
			>
		{/if}
		{#if data.questions.length}<Contents
				{review}
				{category}
				pick={(key) => (category = key)}
				mayChange={data.mayChange}
			/>{/if}
		{#if data.mayChange && review.tree.length > 1}<p class="mt-2 text-[13px]">
				<button
					type="button"
					class="word"
					onclick={() => {
						review.decision.categories = review.decision.categories === 'one' ? 'keep' : 'one';
						if (review.decision.categories === 'one') panel = 'rules';
					}}>{review.decision.categories === 'one' ? 'Keep its own categories' : 'All into one category'}</button
				>
			</p>{/if}
		{#if data.quizzes.length}
			<h2 class="mt-5">Quizzes in it</h2>
			{#each data.quizzes as quiz (quiz.id)}<p class="mt-1">{quiz.title}</p>{/each}
			<p class="mute mt-1 text-[13px]">They come along, and refer to the questions in the bank.</p>
			<QuizBank {review} banks={data.banks} quizzes={data.quizzes} mayChange={data.mayChange} />
		{/if}
		{#if data.used.count}
			<h2 class="mt-5">Pictures and files</h2>
			<p class="mute mt-1 text-[13px]">
				{count(data.used.count, 'file')} of the questions, {bytes(data.used.size)}, each kept once
			</p>
			{#if data.used.shared.length}<ul class="mt-1 text-[13px]" aria-label="Shared pictures">
					{#each data.used.shared as one (one.hash)}<li class="flex gap-2" title={one.name}>
							<a class="cut word" href="/courses/{data.course.id}/files/{one.hash}" target="_blank" rel="noreferrer"
								>{one.name.split('/').at(-1)}</a
							><span class="mute ml-auto whitespace-nowrap">in {one.uses.toLocaleString('en')} questions</span>
						</li>{/each}
				</ul>{/if}
		{/if}
		{#if data.others.length}
			<h2 class="mt-5">Not ours</h2>
			<ul class="mt-1 text-[13px]" aria-label="Files that are not ours">
				{#each data.others.slice(0, 12) as other (other.path)}<li class="cut mute" title="{other.path} {other.type}">
						{other.path}
					</li>{/each}
				{#if data.others.length > 12}<li class="mute">and {data.others.length - 12} more</li>{/if}
			</ul>
			<p class="mute mt-1 text-[13px]">No question uses them; they stay behind.</p>
		{/if}
		{#if data.reports.length}
			<h2 class="mt-5">The file itself</h2>
			<button class="word mt-1 text-left" type="button" onclick={() => (aboutFile = true)}
				><Mark
					severity={data.reports[0]!.severity}
					word={count(data.reports.length, 'thing to know', 'things to know')}
				/></button
			>
		{/if}
		{#if data.mayChange}
			<form
				method="POST"
				action="?/away"
				class="mt-6 text-[13px]"
				use:enhance={({ cancel }) => {
					if (sure) return;
					sure = true;
					cancel();
				}}
			>
				<button class="word">{sure ? 'Yes, throw this load away' : 'Throw this load away'}</button>
				{#if sure}<button type="button" class="word ml-3" onclick={() => (sure = false)}>no, keep it</button>{/if}
			</form>
		{/if}
	</section>

	<section class="column middle" aria-label="Questions">
		<h2 class="visually-hidden">Questions</h2>
		{#if data.questions.length}<div class="filters">
				<input class="field" type="search" placeholder="find" aria-label="Find a question" bind:value={words} />
				<select class="field" aria-label="Snag" bind:value={rule}
					><option value="">any snags</option><option value="any">with snags</option
					>{#each rulesHere as [one, many] (one)}<option value={one}>{ruleTitle(one)} ({many})</option>{/each}</select
				>
				{#if kindsHere.length > 1}<select class="field" aria-label="Kind" bind:value={kind}
						><option value="">any kind</option>{#each kindsHere as one (one)}<option value={one}>{kindName(one)}</option
							>{/each}</select
					>{/if}
				{#if matchesHere.length > 1}<select class="field" aria-label="Against the course" bind:value={match}
						><option value="">new or not</option>{#each matchesHere as [one, many] (one)}<option value={one}
								>{matchWords[one]} ({many})</option
							>{/each}</select
					>{/if}
				<select class="field" aria-label="Order" bind:value={order}
					><option value="file">file order</option><option value="category">by category</option><option value="kind"
						>by kind</option
					><option value="snag">by snag</option></select
				>
			</div>{/if}
		{#if selection.length && data.mayChange}
			<div class="filters bulk" role="group" aria-label="With what is selected">
				<b>{selection.length.toLocaleString('en')} selected</b>
				<button
					class="button small ghost"
					type="button"
					disabled={review.busy}
					onclick={() => act({ do: 'choose', ids: selection, choice: 'leave' })}>Leave out</button
				>
				<button
					class="button small ghost"
					type="button"
					disabled={review.busy}
					onclick={() => act({ do: 'choose', ids: selection, choice: 'aside' })}>Set aside</button
				>
				<button
					class="button small ghost"
					type="button"
					disabled={review.busy}
					onclick={() => act({ do: 'choose', ids: selection, choice: null })}>Include</button
				>
				<button
					class="button small ghost"
					type="button"
					disabled={review.busy}
					onclick={() => act({ do: 'verify', ids: selection, verified: true })}>Key verified</button
				>
				{#each mendable as [one] (one)}<button
						class="button small ghost"
						type="button"
						disabled={review.busy}
						title={mendTitle(one)}
						onclick={() => act({ do: 'mend', rule: one, ids: selection })}>Mend {checkOf(one)!.short}</button
					>{/each}
				{#if placing}<!-- svelte-ignore a11y_autofocus --><input
						class="field w-40"
						autofocus
						list="landings"
						aria-label="Category for what is selected"
						placeholder="Category / under it"
						onkeydown={async (event) => {
							if (event.key === 'Escape') placing = false;
							if (event.key !== 'Enter') return;
							const to = steps(event.currentTarget.value);
							placing = false;
							await act({ do: 'place', ids: selection, category: pathKey(to) }, `Put into ${pathText(to)}.`);
						}}
					/>{:else}<button class="button small ghost" type="button" onclick={() => (placing = true)}>Put in …</button
					>{/if}
				<button class="word ml-auto text-[13px]" type="button" onclick={() => (picked = new Set())}>none</button>
			</div>
		{/if}
		{#if rows.length}<Rows
				source={list}
				{chosen}
				{choose}
				label="Questions of the load"
				columns="16px 30px minmax(0, 1fr) 100px 26px 118px"
				narrow="16px 26px minmax(0, 1fr) 100px"
			>
				{#snippet head()}<span role="columnheader"
						><input
							type="checkbox"
							aria-label="Select all that are listed"
							disabled={!data.mayChange}
							checked={rows.length > 0 && rows.every((row) => picked.has(row.id))}
							onchange={(event) =>
								pick(
									rows.map((row) => row.id),
									event.currentTarget.checked
								)}
						/></span
					><span class="text-right" role="columnheader">No.</span><span role="columnheader">Question</span><span
						class="roomy"
						role="columnheader">Kind</span
					><span class="roomy text-right" role="columnheader">Pts</span><span role="columnheader">Snags</span>{/snippet}
				{#snippet line(row: Row)}
					{@const mark = worst(row)}
					{@const out = outcomeOf(row)}
					<span role="cell" class="flex items-center"
						><input
							type="checkbox"
							aria-label="Select question {row.number}"
							disabled={!data.mayChange}
							checked={picked.has(row.id)}
							onclick={(event) => event.stopPropagation()}
							onchange={(event) => pick([row.id], event.currentTarget.checked)}
						/></span
					>
					<span class="mute text-right" role="cell">{row.number}</span>
					<span
						class="flex min-w-0 items-baseline gap-2"
						role="cell"
						title="{row.title}{row.category === row.foundIn ? '' : `, put in ${pathText(pathOfKey(row.category))}`}"
					>
						<span class="cut" class:faint={out !== 'taken' && out !== 'replaced'} class:line-through={out === 'left'}
							>{row.title.slice(0, mostShown) || '(no title)'}</span
						>
						{#if row.verified}<span class="whole" title="key verified">✓</span>{/if}
						{#if row.match !== 'new'}<span
								class="mute ml-auto whitespace-nowrap text-[12px]"
								title="{matchWords[row.match]} as in the course, {row.likeness} percent alike"
								>{row.match === 'same'
									? 'in course'
									: `${row.match === 'near' ? 'like' : 'older'} ${row.likeness} %`}</span
							>{/if}
					</span>
					<span class="roomy mute cut" role="cell">{kindName(row.kind)}</span>
					<span
						class="roomy text-right"
						role="cell"
						title={pointsOf(row) === row.points
							? undefined
							: `${row.points ?? 'none'} in the file, ${pointsOf(row)} by the rule`}
						class:font-bold={pointsOf(row) !== row.points}>{pointsOf(row) ?? '–'}</span
					>
					<span class="cut" role="cell"
						>{#if mark}<Mark
								severity={mark.severity}
								word={short(mark) + (row.marks.length > 1 ? ` +${row.marks.length - 1}` : '')}
							/>{/if}</span
					>
				{/snippet}
			</Rows>
		{:else}<p class="mute p-5">
				{data.questions.length
					? 'No question fits what you asked for.'
					: (data.reports.every((report) => report.message !== data.one.failure) && data.one.failure) ||
						'There is no question in this file.'}
			</p>{/if}
	</section>

	<section class="column paper" aria-label="The question">
		{#if aboutFile}
			<div class="tabs">
				<h2 class="pb-1">The file itself</h2>
				{#if current}<button type="button" class="ml-auto" onclick={() => (aboutFile = false)}
						>back to the question</button
					>{/if}
			</div>
			<Findings findings={data.reports} />
		{:else if shown && showing}
			{#if showing.broken && data.mayChange}
				<p class="mb-2 flex items-center gap-2 text-[13px]">
					<Mark
						severity="broken"
						word={showing.choice === 'leave'
							? 'left out'
							: showing.choice === 'aside'
								? 'set aside'
								: 'will be set aside'}
					/>
					<button
						class="button small ghost ml-auto"
						type="button"
						disabled={review.busy}
						aria-pressed={showing.choice === 'aside'}
						onclick={() => act({ do: 'choose', ids: [showing.id], choice: 'aside' })}>Set aside</button
					>
					<button
						class="button small ghost"
						type="button"
						disabled={review.busy}
						aria-pressed={showing.choice === 'leave'}
						onclick={() => act({ do: 'choose', ids: [showing.id], choice: 'leave' })}>Leave out</button
					>
				</p>
			{/if}
			<Staged
				{shown}
				number={showing.number}
				courseId={data.course.id}
				mayChange={data.mayChange}
				busy={review.busy}
				failure={review.failure}
				matchRule={showing.matchRule}
				ruleWords={showing.match === 'new'
					? ''
					: { skip: 'skip', beside: 'take in beside it', replace: 'put in its place' }[review.decision[showing.match]]}
				mend={(one, all) => act({ do: 'mend', rule: one, ...(all ? {} : { ids: [showing.id] }) })}
				edit={(question) => act({ do: 'edit', id: shown!.id, version: shown!.version, question }, 'Kept.')}
				match={(to) => act({ do: 'match', ids: [showing.id], rule: to })}
				verify={(verified) => act({ do: 'verify', ids: [showing.id], verified })}
				handIn={(name, file) => void handIn(shown!.id, name, file)}
				points={pointsOf(showing)}
				countOf={(one) => rulesHere.find(([name]) => name === one)?.[1] ?? 0}
				leaveOut={() => act({ do: 'choose', ids: [showing.id], choice: 'leave' }, 'Left out.')}
			/>
		{/if}
	</section>
</div>

{#if panel === 'rules'}<Rules {review} saved={data.saved} close={() => (panel = '')} />
{:else if panel === 'changes'}<Changes
		{review}
		quizzes={data.quizzes}
		{target}
		show={(id) => {
			panel = '';
			void choose({ id });
		}}
		close={() => (panel = '')}
	/>{/if}

<form
	class="bar"
	method="POST"
	action="?/take"
	use:enhance={() => {
		pressed = true;
		review.hold();
		return async ({ result, update }) => {
			// where the server cannot answer, the page stays with everything that was decided on it
			if (result.type === 'error')
				review.failure = String((result.error as { message?: string } | null)?.message ?? result.error);
			else await update({ reset: false });
			pressed = false;
			review.busy = false;
		};
	}}
>
	<input type="hidden" name="decision" value={JSON.stringify(review.decision)} />
	<div class="sentence" role="status">
		{#if data.one.state === 'failed'}<b>Nothing can be taken in from this file.</b>
			Throw the load away, or hand in another file under Loads.
		{:else if review.gone}<b
				>{review.gone === 'taken' ? 'Somebody has taken this load in.' : 'Somebody is reading this load anew.'}
				<a class="word" href="/courses/{data.course.id}/loads">See what became of it</a></b
			>
		{:else if form?.refused}<b class="broken">{form.refused}</b>
		{:else if review.failure}<b class="broken">{review.failure}</b>
		{:else if plan.refusal}<b class="broken">{plan.refusal}</b>
		{:else}
			<b
				>Take in {(plan.taken + plan.replaced).toLocaleString('en')} of {count(plan.found, 'question')}
				{plan.taken + plan.replaced ? `into ${target}:` : `into ${data.course.name}, for they are there already.`}</b
			>
			{#if plan.taken + plan.replaced}{plan.categories.length
					? `${count(plan.categories.length, 'category', 'categories')}, ${ofThemNew(plan.categories.length, plan.newCategories.length)}`
					: 'no category'}{plan.quizBank
					? `, and ${plan.quizBank.taken.toLocaleString('en')} of them into ${quizBankName}`
					: ''}.{/if}
			<span class="mute">{rest}{rest ? '.' : ''}</span>
			{#if data.quizzes.length}<span>{count(data.quizzes.length, 'quiz', 'quizzes')} with it.</span>{/if}
			{#if why}<span class="mute">Into this bank, for {why}.</span>{/if}
			{#if effects}<span class="doubtful">By rule: {effects}.</span>{/if}
			<span class="mute">{done || review.news}</span>
		{/if}
	</div>
	{#if data.one.state === 'failed'}<a class="button ghost" href="/courses/{data.course.id}/loads">Loads</a>
	{:else if data.mayChange}
		<select class="field" aria-label="Bank" bind:value={review.decision.bankId}>
			{#each data.banks as one (one.id)}<option value={one.id}>into {one.name}</option>{/each}
			<option value={null}>into a new bank</option>
		</select>
		{#if review.decision.bankId === null}<input
				class="field w-40"
				aria-label="Name of the new bank"
				placeholder="name of the bank"
				maxlength="190"
				list="names"
				bind:value={review.decision.bankName}
			/><datalist id="names"
				>{#each [...new Set([data.one.package_title, fileName].filter(Boolean))] as one (one)}<option value={one}
					></option>{/each}</datalist
			>{/if}
		<button
			class="button ghost"
			type="button"
			aria-expanded={panel === 'rules'}
			onclick={() => (panel = panel === 'rules' ? '' : 'rules')}>Rules</button
		>
		<button
			class="button ghost"
			type="button"
			aria-expanded={panel === 'changes'}
			onclick={() => (panel = panel === 'changes' ? '' : 'changes')}>What will change</button
		>
		<button class="button" disabled={plan.refusal !== null || pressed || review.gone !== ''}
			>{pressed
				? 'Taking in…'
				: plan.taken + plan.replaced || !data.quizzes.length
					? `Take in ${(plan.taken + plan.replaced).toLocaleString('en')}`
					: `Take in ${count(data.quizzes.length, 'quiz', 'quizzes')}`}</button
		>
	{:else}<span class="mute">You may look at this course, and not change it.</span>{/if}
</form>

<style>
	.columns {
		grid-template-columns: 306px minmax(0, 1fr) 392px;
	}
	.filters input[type='search'] {
		flex: 1 1 90px;
		min-width: 84px;
	}
	.filters select {
		flex: 0 1 132px;
		min-width: 0;
	}
	.bulk {
		flex-wrap: wrap;
		row-gap: 4px;
		padding-block: 6px;
		background: var(--woad-soft);
	}
	.sentence {
		flex: 1 1 300px;
	}
	button.word {
		cursor: pointer;
		color: var(--woad);
		text-decoration: underline;
		text-underline-offset: 2px;
	}
	button[aria-pressed='true'] {
		background: var(--woad-soft);
	}
	@media (max-width: 1120px) {
		.columns {
			grid-template-columns: 236px minmax(0, 1fr) 320px;
		}
	}
</style>
