<script lang="ts">
	import { middleOf } from '$core/kinds/areas';
	import type { Picture, Shape } from '$core/model/pieces';

	/** A picture with places drawn over it, numbered in their order; `onpoint` is told of a click in pixels of the picture. */
	let {
		picture,
		address,
		places,
		right,
		points = [],
		onpoint
	}: {
		picture: Picture;
		address: string | null;
		places: Shape[];
		right: (shape: Shape) => boolean;
		points?: [number, number][];
		onpoint?: (point: [number, number]) => void;
	} = $props();

	const size = $derived({ width: picture.width ?? 300, height: picture.height ?? 200 });
	function point(event: MouseEvent) {
		const box = (event.currentTarget as SVGElement).getBoundingClientRect();
		const x = Math.round(((event.clientX - box.left) / box.width) * size.width);
		const y = Math.round(((event.clientY - box.top) / box.height) * size.height);
		onpoint?.([x, y]);
	}
	const corners = (shape: Shape) =>
		shape.coordinates.reduce((text, value, at) => text + (at % 2 ? `${value} ` : `${value},`), '');
</script>

<div class="frame" style="max-width: {Math.max(size.width, 240)}px">
	<!-- the picture is pointed at with the mouse; the boxes below it do the same by key -->
	<!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_noninteractive_element_interactions -->
	<svg
		viewBox="0 0 {size.width} {size.height}"
		role="img"
		aria-label={picture.alt || 'Picture of the question'}
		onclick={point}
	>
		<rect width={size.width} height={size.height} class="ground" />
		{#if address}<image href={address} width={size.width} height={size.height} preserveAspectRatio="none" />{:else}<text
				x="8"
				y="18"
				font-size="12">picture missing: {picture.name}</text
			>{/if}
		{#each places as shape, at (shape.identifier)}
			{@const [x, y] = middleOf(shape)}
			<g class="shape" class:right={right(shape)}>
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
		{#each points as [x, y], at (at)}
			<circle class="pointed" cx={x} cy={y} r={Math.max(2, size.height / 40)} />
		{/each}
	</svg>
</div>

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
</style>
