<script lang="ts">
	import { page } from '$app/state';
	import Moon from '@lucide/svelte/icons/moon';
	import Sun from '@lucide/svelte/icons/sun';
	import CourseSwitcher from './CourseSwitcher.svelte';
	import PersonMenu from './PersonMenu.svelte';
	import { figure } from './words';

	interface Course {
		id: number;
		name: string;
		code: string;
		intake: string;
	}
	/** The shell: one strand of yarn through the five stations, each a knot with the number that waits there. */
	let {
		course,
		courses,
		waiting,
		person,
		showKeys
	}: {
		course: Course;
		courses: Course[];
		waiting: Record<'loads' | 'banks' | 'snags' | 'quizzes' | 'dispatch', number>;
		person: { name: string };
		showKeys: () => void;
	} = $props();

	const stations = [
		{ key: 'loads', name: 'Loads', says: 'to review' },
		{ key: 'banks', name: 'Banks', says: 'questions' },
		{ key: 'snags', name: 'Snags', says: 'open' },
		{ key: 'quizzes', name: 'Quizzes', says: 'in draft' },
		{ key: 'dispatch', name: 'Dispatch', says: 'being written' }
	] as const;
	const here = $derived(stations.find((one) => page.url.pathname.startsWith(`/courses/${course.id}/${one.key}`))?.key);
	const short = (count: number) =>
		count < 1000 ? String(count) : count < 10_000 ? `${(count / 1000).toFixed(1)}k` : `${Math.round(count / 1000)}k`;
	// thicker towards a station where work waits; questions in banks are no work by themselves
	const weight = (at: number) => (at !== 1 && waiting[stations[at]!.key] > 0 ? 5 : 2);
	const addressOf = ({ id }: Course) => `/courses/${id}/${here ?? 'loads'}`;

	function turn() {
		const mode = document.documentElement.dataset.mode === 'dark' ? 'light' : 'dark';
		document.documentElement.dataset.mode = mode;
		localStorage.setItem('mode', mode);
	}
</script>

<header>
	<div class="course"><CourseSwitcher {course} {courses} {addressOf} /></div>
	<nav aria-label="Stations">
		<!-- the strand goes from knot to knot, and never through one -->
		<svg viewBox="0 0 760 76" preserveAspectRatio="none" aria-hidden="true">
			{#each [-76, 76, 228, 380, 532, 684] as from, at (from)}
				<path
					d="M{from + 22} 28C{from + 48} 21 {from + 58} 36 {from + 76} 29S{from + 108} 22 {from + 130} 28"
					fill="none"
					stroke="var(--woad)"
					stroke-width={at < 5 ? weight(at) : 2}
					stroke-linecap="round"
					opacity={at < 5 && weight(at) > 2 ? 1 : 0.55}
				/>
			{/each}
		</svg>
		<ol>
			{#each stations as station (station.key)}
				<li>
					<a
						class="plain"
						href="/courses/{course.id}/{station.key}"
						aria-current={here === station.key ? 'page' : undefined}
					>
						<span class="knot"
							><svg viewBox="0 0 32 32" aria-hidden="true"
								><circle cx="16" cy="16" r="14.5" /><path d="M3.4 11C8 3.6 24 3.6 28.6 11" /></svg
							><span class="count" class:long={short(waiting[station.key]).length > 3}
								>{short(waiting[station.key])}</span
							></span
						>
						<span class="name">{station.name}</span><span class="visually-hidden"
							>, {figure(waiting[station.key])} {station.says}</span
						>
					</a>
				</li>
			{/each}
		</ol>
	</nav>
	<div class="side">
		<a
			class="plain"
			href="/courses/{course.id}/settings"
			aria-current={page.url.pathname.endsWith('/settings') ? 'page' : undefined}>Course</a
		>
		<a
			class="plain"
			href="/courses/{course.id}/ledger"
			aria-current={page.url.pathname.endsWith('/ledger') ? 'page' : undefined}>Ledger</a
		>
		<a
			class="plain"
			href="/courses/{course.id}/bin"
			aria-current={page.url.pathname.endsWith('/bin') ? 'page' : undefined}>Bin</a
		>
		<button type="button" onclick={showKeys} aria-label="Keys" title="Keys"><kbd>?</kbd></button>
		<button type="button" onclick={turn} aria-label="Light or dark" title="Light or dark"
			><Sun size={16} class="hidden dark:block" /><Moon size={16} class="dark:hidden" /></button
		>
		<PersonMenu {person} />
	</div>
</header>

<style>
	header {
		display: flex;
		align-items: stretch;
		height: 76px;
		padding: 0 20px;
		gap: 18px;
		flex: none;
	}
	.course {
		align-self: center;
		width: 196px;
		position: relative;
		flex: none;
	}
	nav {
		flex: 1;
		position: relative;
		min-width: 420px;
		overflow: hidden;
	}
	nav > svg {
		position: absolute;
		inset: 0;
		width: 100%;
		height: 100%;
	}
	ol {
		position: absolute;
		inset: 0;
		display: grid;
		grid-template-columns: repeat(5, 1fr);
	}
	li {
		display: flex;
		justify-content: center;
	}
	li a {
		display: flex;
		flex-direction: column;
		align-items: center;
		padding: 12px 8px 0;
		font: 550 14px 'Bricolage Grotesque Variable';
		color: var(--ink2);
		margin: 0 0 6px;
	}
	.knot {
		position: relative;
		width: 32px;
		height: 32px;
		display: grid;
		place-items: center;
		margin-bottom: 5px;
	}
	.knot svg {
		position: absolute;
		inset: 0;
	}
	.knot {
		z-index: 1;
	}
	.knot circle {
		fill: var(--ground);
		stroke: var(--woad);
		stroke-width: 1.7;
	}
	.knot path {
		fill: none;
		stroke: var(--woad);
		stroke-width: 1.1;
		opacity: 0.5;
	}
	.count {
		position: relative;
		font: 700 12px 'Atkinson Hyperlegible Next Variable';
		color: var(--ink);
	}
	.count.long {
		font-size: 10.5px;
	}
	[aria-current='page'] {
		color: var(--ink);
	}
	[aria-current='page'] .name {
		font-weight: 750;
	}
	[aria-current='page'] .knot circle {
		fill: var(--woad);
	}
	[aria-current='page'] .knot path {
		stroke: var(--woad-soft);
	}
	[aria-current='page'] .count {
		color: var(--paper);
	}
	.side {
		align-self: center;
		display: flex;
		gap: 14px;
		align-items: center;
		color: var(--ink2);
		font-size: 13.5px;
	}
	.side button {
		cursor: pointer;
		display: grid;
		place-items: center;
		min-width: 24px;
		min-height: 24px;
	}
	.side a[aria-current] {
		text-decoration: underline 2px var(--woad);
		text-underline-offset: 5px;
	}
	@media (max-width: 960px) {
		header {
			gap: 10px;
		}
		nav {
			min-width: 320px;
		}
		li a {
			padding-inline: 2px;
		}
		.side {
			gap: 10px;
		}
	}
</style>
