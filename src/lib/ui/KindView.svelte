<script lang="ts">
	import { shownValue } from '$core/kinds/calculated/datasets';
	import { plainText } from '$core/markup/text';
	import type { Blank, Question } from '$core/kinds';
	import type { Markup } from '$core/model/question';
	import type { Shape, Side } from '$core/model/pieces';
	import { visible } from '$core/markup/visible';
	import { acceptedNumberText } from '$core/kinds/answers';
	import type { Response } from '$core/kinds/kind';
	import { middleOf } from '$core/kinds/areas';
	import { percentOf } from './percent';

	/**
	 * What a question of any kind but the choices, words and numbers asks for: with `mode` "key" what is right, with
	 * "try" the boxes to answer it. `answer` is the response so far, and `onanswer` is told of each change to it.
	 */
	let {
		question,
		mode,
		answer,
		onanswer,
		html,
		picture
	}: {
		question: Question;
		mode: 'key' | 'try';
		answer: Response;
		onanswer: (response: Response) => void;
		html: (markup: Markup) => string;
		picture: (name: string) => string | null;
	} = $props();

	const percent = (credit: number) => (credit >= 1 ? 'all of it' : percentOf(credit));
	const textOf = (list: Side[], identifier: string) => list.find((one) => one.identifier === identifier)?.text ?? '';
	const wordOf = (identifier: string) => ('bank' in question ? plainText(textOf(question.bank, identifier)) : '');
	const rightOf = (blank: Blank): string =>
		blank.form === 'text'
			? blank.accepted
					.filter((one) => one.credit > 0)
					.map(
						(one) =>
							`${one.match === 'pattern' ? 'pattern ' : one.match === 'contains' ? 'contains ' : ''}${visible(one.text)}${one.credit < 1 ? ` (${percent(one.credit)})` : ''}`
					)
					.join(', ')
			: blank.form === 'number'
				? blank.accepted.map(acceptedNumberText).join(', ')
				: blank.form === 'word'
					? blank.words
							.filter((one) => one.credit > 0)
							.map((one) => wordOf(one.word))
							.join(', ')
					: blank.form === 'list'
						? blank.entries
								.filter((one) => one.credit > 0)
								.map((one) => plainText(one.text))
								.join(', ')
						: 'written at length, marked by a person';

	function fill(identifier: string, values: string[]) {
		onanswer({ ...answer, blanks: { ...answer.blanks, [identifier]: values } });
	}
	const filled = (identifier: string) => answer.blanks?.[identifier] ?? [];
	function pair(left: string, right: string, on: boolean) {
		const others = (answer.pairs ?? []).filter(([a, b]) => !(a === left && b === right));
		onanswer({ ...answer, pairs: on ? [...others, [left, right]] : others });
	}
	function only(left: string, right: string) {
		const others = (answer.pairs ?? []).filter(([a]) => a !== left);
		onanswer({ ...answer, pairs: right ? [...others, [left, right]] : others });
	}
	const order = $derived(answer.order ?? ('presented' in question ? question.presented : []));
	function move(at: number, by: number) {
		const next = [...order];
		const [one] = next.splice(at, 1);
		next.splice(at + by, 0, one!);
		onanswer({ ...answer, order: next });
	}
	const size = $derived(
		'picture' in question ? { width: question.picture.width ?? 300, height: question.picture.height ?? 200 } : null
	);
	function point(event: MouseEvent) {
		if (mode !== 'try' || question.kind !== 'hotspot' || question.mode !== 'points' || !size) return;
		const box = (event.currentTarget as SVGElement).getBoundingClientRect();
		const x = Math.round(((event.clientX - box.left) / box.width) * size.width);
		const y = Math.round(((event.clientY - box.top) / box.height) * size.height);
		const points = question.picks === 1 ? [] : (answer.points ?? []);
		onanswer({ ...answer, points: [...points, [x, y]] });
	}
	function area(identifier: string, on: boolean) {
		if (question.kind !== 'hotspot') return;
		const others = question.picks === 1 ? [] : (answer.options ?? []).filter((one) => one !== identifier);
		onanswer({ ...answer, options: on ? [...others, identifier] : others });
	}
	const corners = (shape: Shape) =>
		shape.coordinates.reduce((text, value, at) => text + (at % 2 ? `${value} ` : `${value},`), '');
	const places = $derived(
		question.kind === 'hotspot' ? question.shapes : question.kind === 'label-image' ? question.targets : []
	);
	const isRight = (shape: Shape) =>
		question.kind === 'hotspot'
			? (question.shapes.find((one) => one.identifier === shape.identifier)?.credit ?? 0) > 0
			: true;
	// a student does not see where the right place is
	const shown = $derived(mode === 'key' || !(question.kind === 'hotspot' && question.mode === 'points'));
</script>

{#snippet frame()}
	{#if 'picture' in question && size}
		{@const address = picture(question.picture.name)}
		<div class="frame" style="max-width: {Math.max(size.width, 240)}px">
			<!-- the picture is pointed at with the mouse; the boxes below it do the same by key -->
			<!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_noninteractive_element_interactions -->
			<svg
				viewBox="0 0 {size.width} {size.height}"
				role="img"
				aria-label={question.picture.alt || 'Picture of the question'}
				onclick={point}
			>
				<rect width={size.width} height={size.height} class="ground" />
				{#if address}<image
						href={address}
						width={size.width}
						height={size.height}
						preserveAspectRatio="none"
					/>{:else}<text x="8" y="18" font-size="12">picture missing: {question.picture.name}</text>{/if}
				{#if shown}
					{#each places as shape, at (shape.identifier)}
						{@const [x, y] = middleOf(shape)}
						<g class="shape" class:right={mode === 'key' && isRight(shape)}>
							{#if shape.shape === 'rect'}<rect
									x={Math.min(shape.coordinates[0]!, shape.coordinates[2]!)}
									y={Math.min(shape.coordinates[1]!, shape.coordinates[3]!)}
									width={Math.abs(shape.coordinates[2]! - shape.coordinates[0]!)}
									height={Math.abs(shape.coordinates[3]! - shape.coordinates[1]!)}
								/>
							{:else if shape.shape === 'circle'}<circle
									cx={shape.coordinates[0]}
									cy={shape.coordinates[1]}
									r={shape.coordinates[2]}
								/>
							{:else if shape.shape === 'ellipse'}<ellipse
									cx={shape.coordinates[0]}
									cy={shape.coordinates[1]}
									rx={shape.coordinates[2]}
									ry={shape.coordinates[3]}
								/>
							{:else if shape.shape === 'poly'}<polygon points={corners(shape)} />{/if}
							<text {x} {y} font-size={Math.max(6, size.height / 14)}>{at + 1}</text>
						</g>
					{/each}
				{/if}
				{#each answer.points ?? [] as [x, y], at (at)}
					<circle class="pointed" cx={x} cy={y} r={Math.max(2, size.height / 40)} />
				{/each}
			</svg>
		</div>
	{/if}
{/snippet}

{#if question.kind === 'fill-blanks'}
	<table class="rows mt-3">
		<tbody>
			{#each question.blanks as blank, at (blank.identifier)}
				<tr>
					<td class="number"><span class="place">{at + 1}</span></td>
					<td>
						{#if mode === 'key'}<span class="whole">{rightOf(blank) || 'nothing is right here'}</span>
							{#if blank.form === 'list'}<span class="faint block text-[13px]"
									>from: {blank.entries.map((one) => plainText(one.text)).join(', ')}</span
								>{/if}
						{:else if blank.form === 'list' && blank.several}
							{#each blank.entries as entry (entry.identifier)}
								<label class="block"
									><input
										type="checkbox"
										checked={filled(blank.identifier).includes(entry.identifier)}
										onchange={(event) =>
											fill(
												blank.identifier,
												event.currentTarget.checked
													? [...filled(blank.identifier), entry.identifier]
													: filled(blank.identifier).filter((one) => one !== entry.identifier)
											)}
									/>
									{plainText(entry.text)}</label
								>
							{/each}
						{:else if blank.form === 'list' || blank.form === 'word'}
							{@const entries = blank.form === 'list' ? blank.entries : question.bank}
							<select
								class="field"
								aria-label="Blank {at + 1}"
								value={filled(blank.identifier)[0] ?? ''}
								onchange={(event) => fill(blank.identifier, [event.currentTarget.value].filter(Boolean))}
							>
								<option value="">…</option>
								{#each entries as entry (entry.identifier)}<option value={entry.identifier}
										>{plainText(entry.text)}</option
									>{/each}
							</select>
						{:else}
							<input
								class="field"
								aria-label="Blank {at + 1}"
								value={filled(blank.identifier)[0] ?? ''}
								oninput={(event) => fill(blank.identifier, [event.currentTarget.value])}
							/>
						{/if}
					</td>
					<td class="number mute">{mode === 'key' && question.combination === 'sum' ? percentOf(blank.share) : ''}</td>
				</tr>
			{/each}
		</tbody>
	</table>
	{#if question.bank.length}<p class="mute mt-2 text-[13px]">
			Words: {question.bank.map((word) => plainText(word.text)).join(', ')}
		</p>{/if}
	{#if mode === 'key' && question.combination === 'all'}<p class="mute mt-2 text-[13px]">
			All of them have to be right; else there are no points.
		</p>{/if}
{:else if question.kind === 'matching' || question.kind === 'label-image'}
	{@render frame()}
	{@const lefts = question.kind === 'matching' ? question.left : question.labels}
	{@const rights =
		question.kind === 'matching'
			? question.right.map((one) => ({ identifier: one.identifier, text: plainText(one.text), markup: one.text }))
			: question.targets.map((one, at) => ({
					identifier: one.identifier,
					text: `Place ${at + 1}`,
					markup: `Place ${at + 1}`
				}))}
	<table class="rows mt-3">
		<tbody>
			{#each lefts as left (left.identifier)}
				<tr>
					<!-- eslint-disable svelte/no-at-html-tags -->
					<td class="rich">{@html html(left.text)}</td>
					<td>
						{#if mode === 'key'}
							{#each question.pairs.filter((one) => one.left === left.identifier && one.credit !== 0) as one (one.right)}
								<span class="rich {one.credit > 0 ? 'whole' : 'broken'}"
									>{@html html(rights.find((right) => right.identifier === one.right)?.markup ?? '?')}</span
								>
								{#if question.combination === 'sum'}<span class="faint">{percent(one.credit)}</span>{/if}<br />
							{:else}<span class="mute">nothing belongs to it</span>{/each}
						{:else if left.uses === 1}
							<select
								class="field"
								aria-label="What belongs to {plainText(left.text)}"
								value={(answer.pairs ?? []).find(([a]) => a === left.identifier)?.[1] ?? ''}
								onchange={(event) => only(left.identifier, event.currentTarget.value)}
							>
								<option value="">…</option>
								{#each rights as right (right.identifier)}<option value={right.identifier}>{right.text}</option>{/each}
							</select>
						{:else}
							{#each rights as right (right.identifier)}
								<label class="block"
									><input
										type="checkbox"
										checked={(answer.pairs ?? []).some(([a, b]) => a === left.identifier && b === right.identifier)}
										onchange={(event) => pair(left.identifier, right.identifier, event.currentTarget.checked)}
									/>
									{right.text}</label
								>
							{/each}
						{/if}
					</td>
				</tr>
			{/each}
		</tbody>
	</table>
	{#if mode === 'key' && question.kind === 'matching'}
		{@const loose = question.right.filter(
			(right) => !question.pairs.some((one) => one.right === right.identifier && one.credit > 0)
		)}
		{#if loose.length}<p class="mute mt-2 text-[13px]">
				Belongs to nothing: {loose.map((one) => plainText(one.text)).join(', ')}
			</p>{/if}
	{/if}
{:else if question.kind === 'ordering'}
	<ol class="order">
		{#each mode === 'key' ? question.items.map((item) => item.identifier) : order as identifier, at (identifier)}
			<li>
				<span class="rich">{@html html(question.items.find((one) => one.identifier === identifier)?.text ?? '')}</span>
				{#if mode === 'try'}
					<button
						type="button"
						class="button small ghost"
						disabled={at === 0}
						aria-label="Move up"
						onclick={() => move(at, -1)}>↑</button
					>
					<button
						type="button"
						class="button small ghost"
						disabled={at === order.length - 1}
						aria-label="Move down"
						onclick={() => move(at, 1)}>↓</button
					>
				{/if}
			</li>
		{/each}
	</ol>
	{#if mode === 'key'}<p class="mute mt-2 text-[13px]">
			{question.rule === 'all' ? 'All in place, or no points.' : 'Each one in its place earns its part.'}
		</p>{/if}
{:else if question.kind === 'hotspot'}
	{@render frame()}
	{#if mode === 'key'}
		<p class="mute mt-2 text-[13px]">
			{question.mode === 'areas' ? 'Areas to choose from' : 'Any point of the picture'}; {question.picks === 0
				? 'as many as one likes'
				: `${question.picks} at the most`}.
			{#each question.shapes as shape, at (shape.identifier)}
				<span class="block"
					>{at + 1}: {shape.shape}, {shape.credit > 0 ? 'right' : 'wrong'}, {percent(shape.credit)}</span
				>
			{/each}
		</p>
	{:else if question.mode === 'areas'}
		{#each question.shapes as shape, at (shape.identifier)}
			<label class="mr-4"
				><input
					type="checkbox"
					checked={(answer.options ?? []).includes(shape.identifier)}
					onchange={(event) => area(shape.identifier, event.currentTarget.checked)}
				/>
				area {at + 1}</label
			>
		{/each}
	{:else}
		<p class="mt-2 flex items-center gap-2">
			<span class="mute">Point at the picture, or say where:</span>
			{#each ['across', 'down'] as name, at (name)}
				<input
					class="field narrow"
					type="number"
					aria-label="Pixels {name}"
					value={answer.points?.[0]?.[at] ?? ''}
					oninput={(event) => {
						const [x, y] = answer.points?.[0] ?? [0, 0];
						const value = Number(event.currentTarget.value);
						onanswer({ ...answer, points: [at ? [x, value] : [value, y]] });
					}}
				/>
			{/each}
			<button type="button" class="button small ghost" onclick={() => onanswer({ ...answer, points: [] })}>Clear</button
			>
		</p>
	{/if}
{:else if question.kind === 'calculated'}
	{#if mode === 'key'}
		<table class="rows mt-3">
			<tbody>
				{#each question.variables as one (one.name)}
					<tr
						><td><b class="mono">{one.name}</b></td><td
							>{one.values.form === 'range'
								? `${shownValue(one.values.min, null)} to ${shownValue(one.values.max, null)}${one.values.step === null ? '' : ` in steps of ${one.values.step}`}`
								: one.values.form === 'set'
									? `one of ${one.values.values.join(', ')}`
									: `= ${one.values.expression}`}</td
						></tr
					>
				{/each}
				{#each question.constraints as one (one)}<tr><td class="mute">so that</td><td class="mono">{one}</td></tr
					>{/each}
				<tr
					><td class="mute">answer</td><td
						><span class="mono whole">{question.expression}</span>
						{question.unit ?? ''}
						<span class="faint"
							>{question.tolerance.value
								? `± ${question.tolerance.mode === 'relative' ? `${Math.round(question.tolerance.value * 10000) / 100}\u00a0%` : question.tolerance.value}`
								: 'exactly'}</span
						></td
					></tr
				>
			</tbody>
		</table>
	{:else}
		<p class="mt-3">
			<input
				class="field"
				aria-label="Your answer"
				inputmode="decimal"
				value={answer.text ?? ''}
				oninput={(event) => onanswer({ ...answer, text: event.currentTarget.value })}
			/>
			{question.unit ?? ''}
			<button
				type="button"
				class="button small ghost"
				onclick={() => onanswer({ seed: String(Number(answer.seed ?? '1') + 1) })}>Other numbers</button
			>
		</p>
	{/if}
{:else if question.kind === 'file-upload'}
	<p class="mute mt-3">
		Answered with a file{question.accepts ? ` (${question.accepts})` : ''}, marked by a person.
	</p>
{/if}

<style>
	.frame {
		margin-top: 12px;
		border: 1px solid var(--line);
	}
	svg {
		display: block;
		width: 100%;
		height: auto;
	}
	.ground {
		fill: var(--paper);
	}
	.shape {
		fill: color-mix(in srgb, var(--ink3) 14%, transparent);
		stroke: var(--ink2);
		stroke-width: 1.5;
	}
	.shape > * {
		vector-effect: non-scaling-stroke;
	}
	.shape.right {
		fill: color-mix(in srgb, var(--lichen) 30%, transparent);
		stroke: var(--lichen);
	}
	.shape text {
		fill: var(--ink);
		stroke: none;
		text-anchor: middle;
		dominant-baseline: central;
	}
	.pointed {
		fill: var(--madder);
		stroke: var(--paper);
	}
	.place {
		display: inline-block;
		min-width: 1.6em;
		padding: 0 4px;
		border-bottom: 2px solid var(--woad);
		text-align: center;
	}
	.order {
		margin-top: 12px;
		padding-left: 1.6em;
		list-style: decimal;
	}
	.order li {
		padding: 4px 0;
	}
	.narrow {
		width: 84px;
	}
</style>
