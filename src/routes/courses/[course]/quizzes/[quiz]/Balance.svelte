<script lang="ts">
	import { kindName, type Kind } from '$core/kinds';
	import type { KeptQuota, QuotaValue } from '$lib/forms/quiz';
	import type { Part } from '$lib/server/quizzes/quiz';
	import NumberField from '$lib/ui/NumberField.svelte';
	import { count } from '$lib/ui/words';
	import type { Sheet } from './sheet.svelte';

	/** How what a part draws is balanced over categories, kinds, tags or difficulty. */
	let { sheet, part, mayChange }: { sheet: Sheet; part: Part; mayChange: boolean } = $props();

	type By = KeptQuota['by'];
	type How = 'equal' | 'proportional' | 'all' | 'by hand';
	const measures: { by: By; name: string }[] = [
		{ by: 'category', name: 'categories' },
		{ by: 'kind', name: 'kinds' },
		{ by: 'tag', name: 'tags' },
		{ by: 'difficulty', name: 'difficulty' },
		{ by: 'points', name: 'points' }
	];
	const columnNames: Record<By, string> = {
		category: 'Category',
		kind: 'Kind',
		tag: 'Tag',
		difficulty: 'Difficulty',
		points: 'Worth'
	};
	const hows: { how: How; name: string }[] = [
		{ how: 'equal', name: 'equally' },
		{ how: 'proportional', name: 'in proportion to the pool' },
		{ how: 'all', name: 'none left out' },
		{ how: 'by hand', name: 'by hand' }
	];
	/** So many values are balanced over at the most where nobody has chosen them. */
	const mostValues = 60;

	const look = $derived(sheet.looks[sheet.chosen]);
	/** Of so many different worths a balance over points makes sense. */
	const worthsOf = (of: typeof look) => (of?.worths ?? []).slice(0, mostValues).map(({ points }) => points);
	const disabled = $derived(!mayChange || !sheet.knowsQuotas);
	/** The quotas of a part by what they count, each with the place of its first. */
	const blocks = $derived(
		measures
			.map(({ by, name }) => ({ by, name, quotas: part.quotas.filter((quota) => quota.by === by) }))
			.filter(({ quotas }) => quotas.length)
	);
	const free = $derived(measures.filter(({ by }) => !blocks.some((block) => block.by === by)));

	function howOf(quotas: readonly KeptQuota[]): How {
		const [first] = quotas;
		if (first!.spread) return first!.spread;
		return quotas.length === 1 && first!.values.length > 1 && first!.least === 1 && first!.most === null
			? 'all'
			: 'by hand';
	}
	/** The values to balance over: of categories those that are drawn from, or what is under the only one. */
	function valuesOf(by: By): QuotaValue[] {
		if (by === 'kind') return (look?.kinds ?? []).map(({ name }) => ({ name }));
		if (by === 'tag') return (look?.tags ?? []).slice(0, mostValues).map(({ name }) => ({ name }));
		if (by === 'points') return worthsOf(look).map((points) => ({ range: [points, points] }));
		if (by === 'difficulty') {
			const [least, most] = look?.difficulty ?? [0, 1];
			const third = (most - least) / 3;
			const edge = (at: number) => Math.round((least + at * third) * 100) / 100;
			return [0, 1, 2].map((at) => ({ range: [at ? edge(at) + 0.01 : least, at === 2 ? most : edge(at + 1)] }));
		}
		const under = (id: number) => sheet.tree.filter((node) => node.parentId === id).map(({ id: own }) => own);
		const [only] = part.categories;
		const below = part.categories.length === 1 && part.withUnder ? under(only!) : [];
		return (below.length > 1 ? below : part.categories).slice(0, mostValues).map((category) => ({ category }));
	}
	function set(by: By, how: How): void {
		const before = part.quotas.filter((quota) => quota.by === by).flatMap(({ values }) => values);
		const values = before.length ? before : valuesOf(by);
		if (!values.length) return;
		const blank = { by, values, spread: null, least: null, most: null };
		const next: KeptQuota[] =
			how === 'by hand'
				? values.map((value, at) => {
						const known = look?.quotas.flat()[at];
						return { ...blank, values: [value], least: known?.least ?? 0, most: known?.most ?? null };
					})
				: how === 'all'
					? [{ ...blank, least: 1 }]
					: [{ ...blank, spread: how }];
		part.quotas = [...part.quotas.filter((quota) => quota.by !== by), ...next];
	}
	const drop = (by: By) => (part.quotas = part.quotas.filter((quota) => quota.by !== by));
	function leave(by: By, gone: QuotaValue): void {
		part.quotas = part.quotas
			.map((quota) => (quota.by === by ? { ...quota, values: quota.values.filter((value) => value !== gone) } : quota))
			.filter(({ values }) => values.length);
	}
	function nameOf(by: By, { category, name, range }: QuotaValue): string {
		if (by === 'category') return sheet.node(category ?? 0)?.name ?? 'a category that is gone';
		if (by === 'points' && range?.[0] === range?.[1]) return count(range?.[0] ?? 0, 'point');
		if (by === 'difficulty' || by === 'points') return `${range?.[0]} to ${range?.[1]}`;
		return by === 'kind' ? kindName(name as Kind) : (name ?? '');
	}
	const placeOf = (quota: KeptQuota) => part.quotas.indexOf(quota);
	const spanText = (least: number, most: number) =>
		least === most
			? `${least}`
			: most >= (part.draw ?? Infinity) && least > 0
				? `${least} or more`
				: `${least} to ${most}`;
</script>

<div class="flex flex-wrap items-baseline gap-2">
	<h3>Balance</h3>
	{#if free.length}<select
			class="select ml-auto w-auto"
			aria-label="Balance what is drawn over"
			{disabled}
			value=""
			onchange={(event) => {
				set(event.currentTarget.value as By, 'equal');
				event.currentTarget.value = '';
			}}
			><option value="">balance over …</option>{#each free as { by, name } (by)}<option
					value={by}
					disabled={!valuesOf(by).length}>{name}</option
				>{/each}</select
		>{/if}
</div>
{#each blocks as { by, name, quotas } (by)}
	<div class="mt-1 flex flex-wrap items-center gap-2">
		<span>over {name}</span>
		<select
			class="select w-auto"
			aria-label="How it is balanced over {name}"
			{disabled}
			value={howOf(quotas)}
			onchange={(event) => set(by, event.currentTarget.value as How)}
			>{#each hows as { how, name: called } (how)}<option value={how}>{called}</option>{/each}</select
		>
		{#if !disabled}<button type="button" class="word ml-auto text-[13px]" onclick={() => drop(by)}>not any more</button
			>{/if}
	</div>
	<table class="table mt-1">
		<thead
			><tr
				><th>{columnNames[by]}</th><th class="number">holds</th><th class="number">in each sitting</th><th
					><span class="visually-hidden">Do</span></th
				></tr
			></thead
		>
		<tbody>
			{#each quotas as quota (quota)}{#each quota.values as value, at (value)}
					{@const told = look?.quotas[placeOf(quota)]?.[at]}
					<tr>
						<td class="cut" title={nameOf(by, value)}>{nameOf(by, value)}</td>
						<td class="number mute">{told?.holds ?? '…'}</td>
						<td class="number whitespace-nowrap"
							>{#if howOf(quotas) === 'by hand'}<NumberField
									whole
									label="At least, of {nameOf(by, value)}"
									width="40px"
									{disabled}
									bind:value={() => quota.least, (least) => (quota.least = least ?? 0)}
								/>
								to
								<NumberField
									whole
									label="At most, of {nameOf(by, value)}"
									width="40px"
									placeholder="any"
									{disabled}
									bind:value={quota.most}
								/>{:else}{told ? spanText(told.least, told.most) : '…'}{/if}</td
						>
						<td class="number"
							>{#if !disabled && quotas.flatMap(({ values }) => values).length > 1}<button
									type="button"
									class="word text-[13px]"
									aria-label="Do not balance {nameOf(by, value)}"
									onclick={() => leave(by, value)}>out</button
								>{/if}</td
						>
					</tr>
				{/each}{/each}
		</tbody>
	</table>
{:else}<p class="mute text-[13px]">
		{part.categories.length > 1 || (part.withUnder && part.categories.length)
			? `Any ${count(part.draw ?? 0, 'question')} of the pool, as chance has it.`
			: 'Choose categories to balance over them.'}
	</p>{/each}

<style>
	button {
		cursor: pointer;
	}
	td.cut {
		max-width: 140px;
	}
</style>
