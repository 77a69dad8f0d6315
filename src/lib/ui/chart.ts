import { figure } from './words';

/** What bars show: a line each, and how much of each part it has. */
export interface Bars {
	/** What the lines are: "Category". */
	of: string;
	lines: string[];
	parts: { name: string; colour: Dye; values: number[] }[];
	/** The parts of a line lie side by side, to be held against one another; else they add up. */
	apart?: boolean;
	/** How a figure is written; a plain number where that is left out. */
	written?: (value: number) => string;
}

/** A colour of the theme. */
export type Dye = 'woad' | 'madder' | 'weld' | 'lichen' | 'ink3';

/** Shapes beside the colours, so that nothing is told by colour alone. */
const patterns: Record<Dye, { symbol: string; rotation: number } | null> = {
	woad: null,
	madder: null,
	weld: { symbol: 'rect', rotation: -Math.PI / 4 },
	lichen: null,
	ink3: { symbol: 'rect', rotation: Math.PI / 2 }
};

const mostLetters = 22;

const tooltip = (written: (value: number) => string) => ({
	trigger: 'axis' as const,
	axisPointer: { type: 'shadow' as const },
	confine: true,
	valueFormatter: (value: unknown) => written(Number(value)),
	textStyle: { fontSize: 12.5 }
});

/** The parts of bars as series, in the colours of the theme. */
const seriesOf = (
	{ parts, apart, written }: Required<Pick<Bars, 'parts' | 'apart' | 'written'>>,
	text: object,
	dye: (name: string) => string
) =>
	parts.map(({ name, colour, values }, at) => ({
		name,
		type: 'bar',
		...(apart ? {} : { stack: 'all' }),
		data: values,
		barMaxWidth: apart ? 10 : 14,
		barGap: '10%',
		itemStyle: {
			color: dye(colour),
			...(parts.length > 1 && patterns[colour]
				? {
						decal: {
							...patterns[colour],
							color: 'rgb(255 255 255 / 0.28)',
							dashArrayX: [1, 0],
							dashArrayY: [1, 5]
						}
					}
				: {})
		},
		label:
			apart || at === parts.length - 1
				? {
						show: true,
						position: 'right',
						...text,
						formatter: ({ dataIndex }: { dataIndex: number }) =>
							written(
								apart ? (values[dataIndex] ?? 0) : parts.reduce((sum, part) => sum + (part.values[dataIndex] ?? 0), 0)
							)
					}
				: { show: false }
	}));

/** Draws bars in an element: `show` draws them anew in the colours of the theme as they are then, `end` frees them. */
export async function drawBars(place: HTMLElement): Promise<{ show: (bars: Bars) => void; end: () => void }> {
	const [core, { BarChart }, { GridComponent, LegendComponent, TooltipComponent }, { SVGRenderer }] = await Promise.all(
		[import('echarts/core'), import('echarts/charts'), import('echarts/components'), import('echarts/renderers')]
	);
	core.use([BarChart, GridComponent, LegendComponent, TooltipComponent, SVGRenderer]);
	const chart = core.init(place, null, { renderer: 'svg' });
	const resized = new ResizeObserver(() => chart.resize());
	resized.observe(place);
	const dye = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(`--${name}`).trim();
	const still = matchMedia('(prefers-reduced-motion: reduce)').matches;

	function show({ lines, parts, apart = false, written = figure }: Bars): void {
		const text = { color: dye('ink2'), fontFamily: 'Atkinson Hyperlegible Next Variable', fontSize: 12.5 };
		const several = parts.length > 1;
		chart.setOption(
			{
				animation: !still,
				animationDuration: 200,
				grid: { left: 4, right: 44, top: several ? 22 : 2, bottom: 2, containLabel: true },
				legend: several
					? { top: 0, left: 0, itemWidth: 16, itemHeight: 10, icon: 'rect', textStyle: text }
					: { show: false },
				tooltip: tooltip(written),
				xAxis: { type: 'value', show: false },
				yAxis: {
					type: 'category',
					inverse: true,
					data: lines,
					axisLine: { lineStyle: { color: dye('line2') } },
					axisTick: { show: false },
					axisLabel: {
						...text,
						formatter: (name: string) => (name.length > mostLetters ? `${name.slice(0, mostLetters - 1)}…` : name)
					}
				},
				series: seriesOf({ parts, apart, written }, text, dye)
			},
			true
		);
		chart.resize();
	}
	return {
		show,
		end: () => {
			resized.disconnect();
			chart.dispose();
		}
	};
}
