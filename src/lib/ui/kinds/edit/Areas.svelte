<script lang="ts">
	import type { Editing } from '../editing';
	import type { HotspotQuestion, LabelImageQuestion } from '$core/kinds';
	import type { Picture, Shape } from '$core/model/pieces';
	import RichText from '../../RichText.svelte';
	import { fresh } from './credit';
	import CreditField from './CreditField.svelte';
	import List from './List.svelte';

	/** The areas of a picture: which are right, or which label belongs on which; the areas are drawn over the picture. */
	let { question = $bindable(), attachments, courseId }: Editing<HotspotQuestion | LabelImageQuestion> = $props();

	const shapes = $derived<Shape[]>(question.kind === 'hotspot' ? question.shapes : question.targets);
	const file = $derived(attachments.find(({ name }) => name === question.picture.name));
	let seen = $state<{ width: number; height: number } | null>(null);
	const size = (picture: Picture) => ({
		width: picture.width ?? seen?.width ?? 0,
		height: picture.height ?? seen?.height ?? 0
	});
	const forms = ['rect', 'circle', 'ellipse', 'poly', 'default'] as const;
	const formWords: Record<Shape['shape'], string> = {
		rect: 'rectangle',
		circle: 'circle',
		ellipse: 'ellipse',
		poly: 'polygon',
		default: 'all of it'
	};
	const numbers = (text: string) =>
		text
			.split(/[\s,;]+/)
			.map(Number)
			.filter(Number.isFinite);
	const newShape = (): Shape => {
		const { width, height } = size(question.picture);
		return {
			identifier: fresh(shapes.map((shape) => shape.identifier)),
			shape: 'rect',
			coordinates: [width / 4, height / 4, width / 2, height / 2].map(Math.round)
		};
	};
	/** Where a new area begins and ends while it is drawn, in pixels of the picture. */
	let drawn = $state<[number, number, number, number] | null>(null);
	/** The least that an area is wide and high that was drawn, in pixels: less is a click. */
	const least = 4;
	function pointAt(event: PointerEvent): [number, number] {
		const box = (event.currentTarget as Element).getBoundingClientRect();
		const { width, height } = size(question.picture);
		return [
			Math.round(((event.clientX - box.left) / box.width) * width),
			Math.round(((event.clientY - box.top) / box.height) * height)
		];
	}
	function begin(event: PointerEvent) {
		(event.currentTarget as Element).setPointerCapture(event.pointerId);
		const [x, y] = pointAt(event);
		drawn = [x, y, x, y];
	}
	function go(event: PointerEvent) {
		if (drawn) drawn = [drawn[0], drawn[1], ...pointAt(event)];
	}
	/** A rectangle that was drawn becomes an area; its form can be changed in its line. */
	function end() {
		if (!drawn) return;
		const [x, y, a, b] = drawn;
		drawn = null;
		if (Math.abs(a - x) < least || Math.abs(b - y) < least) return;
		const shape = { ...newShape(), coordinates: [Math.min(x, a), Math.min(y, b), Math.max(x, a), Math.max(y, b)] };
		if (question.kind === 'hotspot')
			question.shapes = [...question.shapes, { ...shape, credit: question.shapes.length ? 0 : 1 }];
		else question.targets = [...question.targets, { ...shape, uses: 1 }];
	}
	function belong(target: string, label: string) {
		if (question.kind !== 'label-image') return;
		const others = question.pairs.filter((pair) => pair.right !== target);
		const before = question.pairs.find((pair) => pair.right === target);
		question.pairs = label
			? [...others, { left: label, right: target, credit: before?.credit ?? 1 / question.targets.length }]
			: others;
	}
</script>

{#snippet place(shape: Shape, at: number)}
	<span class="mute">{at + 1}</span>
	<select class="select" aria-label="Form of area {at + 1}" bind:value={shape.shape}
		>{#each forms as form (form)}<option value={form}>{formWords[form]}</option>{/each}</select
	>
	<input
		class="input min-w-0 flex-1"
		aria-label="Place of area {at + 1}, in pixels"
		title="in pixels: rectangle left, top, right, bottom; circle middle and radius; polygon its corners"
		value={shape.coordinates.join(', ')}
		onchange={(event) => (shape.coordinates = numbers(event.currentTarget.value))}
	/>
{/snippet}

{#if file?.hash}
	{@const { width, height } = size(question.picture)}
	<div class="picture">
		<img
			src="/courses/{courseId}/files/{file.hash}?as={encodeURIComponent(file.mediaType)}"
			alt={question.picture.alt}
			onload={(event) => {
				const image = event.currentTarget as HTMLImageElement;
				seen = { width: image.naturalWidth, height: image.naturalHeight };
			}}
		/>
		{#if width && height}
			<svg
				viewBox="0 0 {width} {height}"
				aria-hidden="true"
				onpointerdown={begin}
				onpointermove={go}
				onpointerup={end}
				onpointercancel={() => (drawn = null)}
			>
				{#if drawn}<rect
						class="drawn"
						x={Math.min(drawn[0], drawn[2])}
						y={Math.min(drawn[1], drawn[3])}
						width={Math.abs(drawn[2] - drawn[0])}
						height={Math.abs(drawn[3] - drawn[1])}
					/>{/if}
				{#each shapes as { shape, coordinates: c }, at (at)}
					{#if shape === 'rect'}<rect x={c[0]} y={c[1]} width={c[2]! - c[0]!} height={c[3]! - c[1]!} />
					{:else if shape === 'circle'}<circle cx={c[0]} cy={c[1]} r={c[2]} />
					{:else if shape === 'ellipse'}<ellipse cx={c[0]} cy={c[1]} rx={c[2]} ry={c[3]} />
					{:else if shape === 'poly'}<polygon points={c.join(' ')} />{/if}
					{#if c.length > 1}<text x={c[0]! + 4} y={c[1]! + width / 22} font-size={width / 24}>{at + 1}</text>{/if}
				{/each}
			</svg>
		{/if}
	</div>
	<p class="mute text-[13px]">Draw a rectangle on the picture for a new area, or add one below.</p>
{/if}
{#if question.kind === 'hotspot'}
	<List
		bind:items={question.shapes}
		what="area"
		head="Areas"
		unit="credit in percent"
		make={() => ({ ...newShape(), credit: 0 })}
	>
		{#snippet line(shape: HotspotQuestion['shapes'][number], at: number)}
			{@render place(shape, at)}
			<CreditField bind:credit={shape.credit} label="Credit of area {at + 1}" />
		{/snippet}
	</List>
{:else}
	<List
		bind:items={question.labels}
		what="label"
		head="Labels"
		make={() => ({
			identifier: fresh(question.kind === 'label-image' ? question.labels.map(({ identifier }) => identifier) : []),
			text: '',
			uses: 1
		})}
	>
		{#snippet line(label, at)}
			<RichText bind:value={label.text} {attachments} {courseId} label="Label {at + 1}" small />
		{/snippet}
	</List>
	<List bind:items={question.targets} what="area" head="Areas" make={() => ({ ...newShape(), uses: 1 })}>
		{#snippet line(shape: LabelImageQuestion['targets'][number], at: number)}
			{@render place(shape, at)}
			<select
				class="select"
				aria-label="Label that belongs on area {at + 1}"
				value={question.kind === 'label-image'
					? (question.pairs.find((pair) => pair.right === shape.identifier)?.left ?? '')
					: ''}
				onchange={(event) => belong(shape.identifier, event.currentTarget.value)}
				><option value="">none</option
				>{#if question.kind === 'label-image'}{#each question.labels as label, n (label.identifier)}<option
							value={label.identifier}>label {n + 1}</option
						>{/each}{/if}</select
			>
		{/snippet}
	</List>
{/if}

<style>
	.picture {
		position: relative;
		border: 1px solid var(--line);
	}
	.picture img,
	.picture svg {
		display: block;
		width: 100%;
	}
	.picture svg {
		position: absolute;
		inset: 0;
		height: 100%;
		fill: color-mix(in srgb, var(--woad) 18%, transparent);
		stroke: var(--woad);
		cursor: crosshair;
		touch-action: none;
	}
	.picture .drawn {
		stroke-dasharray: 4 3;
	}
	.picture text {
		pointer-events: none;
		fill: var(--ink);
		stroke: none;
		font-weight: 700;
	}
</style>
